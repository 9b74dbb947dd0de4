// What only the screens and commands of recipes need: it is loaded with them.
export { MovingPng } from '../codecs/formats/png/movingPng'
export { laidFile, laidFrames, TooLarge, type LaidFile } from '../pool/laidFile'
export { builtInRecipes, recipeTags, type BuiltInRecipe } from './builtIn'
export { BUNDLE_ENDING, isZip, pictureFilesOf, readBundle, writeBundle, type Bundle } from './bundle'
export { makeBuiltIn } from './makeBuiltIn'
export { builtInSource, recipeSource, type PictureFiles, type RecipeSource } from './recipeSource'
