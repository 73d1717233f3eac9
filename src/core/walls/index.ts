export { isWall, partAt, partCount, partName, partsOf, shapeOf, type Part, type Wall } from './walls';
export { hasPart, placeOf, placesOf, readPlace, type Place } from './places';
