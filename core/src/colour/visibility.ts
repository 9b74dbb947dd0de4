/**
 * Meteorological optical range times extinction: -ln 0.05. At that distance a contrast has fallen to 5 %. WMO guide no. 8 (from memory).
 */
export const METEOROLOGICAL_RANGE = 2.995732273553991
