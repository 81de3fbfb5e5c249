/** Names in the text: made from the pupil's names, valid Python identifiers, without collisions. */

/** Python's words and its common built-ins, everything that `from mossbell import *` brings, and what the text itself uses. */
export const RESERVED: ReadonlySet<string> = new Set(
  `false none true and as assert async await break class continue def del elif else except finally for from global if import
in is lambda nonlocal not or pass raise return try while with match case type
abs all any bool bytes dict dir divmod enumerate eval exec filter float format getattr hash hex id input int isinstance iter
len list map max min next object open ord pow print range repr reversed round set sorted str sum super tuple zip self
main found row machine sys gc port
wheels display gyro nose rim distance motion left_lamp right_lamp one_lamp two_lamp three_lamp four_lamp five_lamp
six_lamp left_edge right_edge dot bar
a_list again any_chance arc_cosine arc_sine arc_tangent arc_tangent_2 absolute as_number as_text battery beep before
cannot_happen ceiling chance character characters coin cosine dip each every execute floor from_to given how_many is_in jolt
join keep_between key key_is_held larger last_message launch lies_from_to light log map_range mark message moisture moved ms
over pi place_of play plot put_at put_at_end remainder restart_timer rounded run s say seconds send servos_to_middle set_off
shaken silence sine smaller square_root start_tone stick swap_at table take_out tangent temperature tempo tick timer
to_the_power tone touch turn until version volume wait wait_ms wait_until when where_in which whole within`.split(/\s+/)
);

/** A name as Python takes it: letters of any language become ASCII, everything else an underscore. */
export function identifier(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\p{Emoji_Presentation}]+/gu, '_')
    .replace(/^_+|_+$/g, '')
    .replace(/ß/g, 'ss');
  // MicroPython takes only ASCII letters in names
  const ascii = [...plain]
    .map((c) => (/[a-z0-9_]/.test(c) ? c : `u${c.codePointAt(0)!.toString(16)}`))
    .join('')
    .slice(0, 40);
  return ascii === '' || /^\d/.test(ascii) ? `n_${ascii}`.replace(/_$/, '') : ascii;
}
/** The name that an identifier stands for, where no comment says otherwise. */
export const natural = (identifier: string): string => identifier.replace(/_/g, ' ');

/** Gives each key a name of its own. */
export class Names {
  private readonly known = new Map<string, string>();
  private readonly taken = new Set<string>();
  /** @param outer names that are taken already, of the text around */
  constructor(private readonly outer?: Names) {}
  has(name: string): boolean {
    return this.taken.has(name) || (this.outer ? this.outer.has(name) : RESERVED.has(name));
  }
  give(key: string, wanted: string): string {
    const before = this.known.get(key) ?? this.outer?.known.get(key);
    if (before) return before;
    const stem = identifier(wanted);
    let name = stem;
    for (let n = 2; this.has(name); n++) name = `${stem}_${n}`;
    this.taken.add(name);
    this.known.set(key, name);
    return name;
  }
}
