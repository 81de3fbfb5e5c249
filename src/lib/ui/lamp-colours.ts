/** How the lamps of a device look when they are lit. */
export const LAMP_COLOURS: Record<string, string> = {
  amber: '#e0a100',
  red: '#d2402f',
  green: '#3f9a3a',
  blue: '#3b76d6',
  violet: '#8c55c4',
  white: '#f4f4ea'
};
