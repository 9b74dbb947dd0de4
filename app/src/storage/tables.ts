import { colourTableSchema, type ColourTable } from '@welkinar/core'
import { database } from './database'

const SETTING = 'colourTables'
/** More are not kept: those that were opened first go. */
const MOST = 60

/** The colour tables that were opened in this browser, the last first. What cannot be read is left out. */
export async function openedTables(): Promise<readonly ColourTable[]> {
  const stored = await database.settings.get(SETTING)
  const list: readonly unknown[] = Array.isArray(stored?.value) ? stored.value : []
  return list.flatMap((value) => {
    const read = colourTableSchema.safeParse(value)
    return read.success ? [read.data] : []
  })
}

/** Keeps tables before those that are there already; one of the same colours takes the new name. */
export async function keepTables(tables: readonly ColourTable[]): Promise<void> {
  await changeTables((before) => [...tables, ...before.filter((one) => !tables.some((table) => table.codes === one.codes))])
}

/** Takes one out. Scenes that use it keep it. */
export async function dropTable(table: ColourTable): Promise<void> {
  await changeTables((before) => before.filter(({ codes }) => codes !== table.codes))
}

function changeTables(change: (before: readonly ColourTable[]) => readonly ColourTable[]): Promise<void> {
  return database.transaction('rw', database.settings, async () => {
    await database.settings.put({ name: SETTING, value: change(await openedTables()).slice(0, MOST) })
  })
}
