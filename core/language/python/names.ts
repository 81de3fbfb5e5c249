/** Names in the text: made from the pupil's names, valid Python identifiers, without collisions. */

/** Python's words, its common built-ins, and everything that `from mossbell import *` brings. */
const RESERVED = new Set(
  `False None True and as assert async await break class continue def del elif else except finally for from global if import
in is lambda nonlocal not or pass raise return try while with abs all any bool bytes dict dir divmod enumerate eval exec
filter float format getattr hash hex id input int isinstance iter len list map max min next object open ord pow print range
repr reversed round set sorted str sum super tuple type zip main wheels display gyro nose distance left_lamp right_lamp dot bar
Wheels Motor Servo Distance Line Nose Gyro Lamp Display Button Picture run when wait wait_ms wait_until until turn tone beep log
timer chance whole servos_to_middle ProgramError machine sys gc`.split(/\s+/)
);

/** A name as Python takes it: letters of any language are kept, everything else becomes an underscore. */
export function identifier(name: string): string {
  const plain = name
    .normalize('NFKC')
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '_')
    .replace(/^_+|_+$/g, '');
  // MicroPython takes only ASCII letters in names
  const ascii = plain
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9_]/g, (c) => `u${c.codePointAt(0)!.toString(16)}`);
  return ascii === '' || /^\d/.test(ascii) ? `n_${ascii}`.replace(/_$/, '') : ascii;
}

/** Gives each key a name of its own. */
export class Names {
  private readonly taken = new Set(RESERVED);
  private readonly known = new Map<string, string>();
  give(key: string, wanted: string): string {
    const before = this.known.get(key);
    if (before) return before;
    const stem = identifier(wanted);
    let name = stem;
    for (let n = 2; this.taken.has(name); n++) name = `${stem}_${n}`;
    this.taken.add(name);
    this.known.set(key, name);
    return name;
  }
}
