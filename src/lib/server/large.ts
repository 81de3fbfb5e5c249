/** Large pictures in the text of a project or a run: the fields of a floor that hold one, its picture and its reflectance a cell. */
/** Shorter ones stay where they are, characters. */
const LARGE = 2000;
export const LARGE_PICTURES = new RegExp(`"(png|grey)":"([^"\\\\]{${LARGE},})"`, 'g');
