/** Every definition of the catalogue as a block of the block library, made from its words and slots. */
import * as Blockly from 'blockly/core';
import {
  catalogue,
  definition,
  emptySlot,
  grownWords,
  nameOf,
  specFor
} from '../../../../../core/language/catalogue.ts';
import { holdsValue, pieces, type BlockDef, type Piece, type SlotSpec } from '../../../../../core/language/define.ts';
import { partName, type Kit } from '../../../../../core/kit/kit.ts';
import { allSteps, type Program, type Step } from '../../../../../core/language/program.ts';
import { ColourField, KeyField, NameField, NumberField, PictureField, TextField, type Choices } from './fields.ts';
import { draggedByPointer, keepPlaces } from './drag.ts';
import { STEM } from './renderer.ts';
import { later, say, word } from '../../../../../core/words.ts';

/** What the blocks' lists offer: set by the editor whenever program or kit change. */
export const around: {
  program: Program;
  kit: Kit;
  /** makes a variable, a list or a routine of this name; its id */
  make: (what: 'variable' | 'list' | 'routine', name: string) => string;
} = {
  program: { stacks: [], routines: [], variables: [], loose: [] },
  kit: undefined as unknown as Kit,
  make: () => ''
};

const CHECK: Partial<Record<SlotSpec['type'], string[]>> = {
  number: ['Number', 'Any'],
  condition: ['Boolean', 'Any'],
  picture: ['Picture', 'Any'],
  items: ['List', 'Any'],
  text: ['Text', 'Number', 'Any'],
  any: ['Number', 'Text', 'Boolean', 'Picture', 'List', 'Any']
};
const GIVES = { number: 'Number', text: 'Text', condition: 'Boolean', picture: 'Picture', list: 'List', any: 'Any' };
/** How a kind of value is called where it does not fit. */
export const SAYS: Record<string, string> = {
  Number: later('a number'),
  Text: 'text',
  Boolean: later('a condition'),
  Picture: later('a picture'),
  List: later('a list'),
  Any: later('a value')
};

/** What a name slot offers: everything of its kind, and a new one. */
function choices(spec: SlotSpec, kind: string): Choices {
  const named = (list: readonly { id: string; name: string }[]): [string, string][] => list.map((v) => [v.name, v.id]);
  switch (spec.type) {
    case 'variable':
      // a list can be set to another list
      return {
        what: 'variable',
        list: () => named(around.program.variables.filter((v) => !v.list || kind === 'var.set')),
        make: (name) => around.make('variable', name)
      };
    case 'list':
      return {
        what: 'list',
        list: () => named(around.program.variables.filter((v) => v.list)),
        make: (name) => around.make('list', name)
      };
    case 'routine':
      return {
        what: 'routine',
        list: () => named(around.program.routines),
        make: (name) => around.make('routine', name)
      };
    case 'input':
      return { what: 'input', list: () => named(around.program.routines.flatMap((r) => r.inputs ?? [])) };
    default: {
      // names that a program uses are there when they are used: messages, plotted values
      const family = kind.startsWith('log.') ? ['log.plot'] : ['message.send', 'begin.message'];
      return {
        what: kind.startsWith('log.') ? 'name' : 'message',
        list: () => {
          const used = [...allSteps(around.program)]
            .filter((s) => family.includes(s.kind))
            .map((s) => String(s.slots.name));
          return [...new Set(used)].map((n) => [n, n]);
        },
        make: (name) => name
      };
    }
  }
}
function field(spec: SlotSpec, kind: string, slot: string): Blockly.Field {
  const first = String(emptySlot(specFor(spec, around.kit), around.program) ?? '');
  if (spec.type === 'choice') {
    if (slot === 'colour') return new ColourField(spec.options, first);
    const made = new LooseDropdown(() => {
      const { options } = specFor(spec, around.kit) as typeof spec;
      return options.map((o): [string, string] => [word(o, kind), o]);
    });
    made.setValue(first);
    if (spec.hint) made.setTooltip(word(spec.hint));
    return made;
  }
  if (spec.type === 'part') {
    const held: { field?: LooseDropdown } = {};
    const made = (held.field = new LooseDropdown(() => {
      const list = around.kit.parts
        .filter((p) => p.type === spec.part)
        .map((p): [string, string] => [partName(around.kit, p.socket), p.socket]);
      const now = held.field?.getValue() ?? first;
      return list.some(([, v]) => v === now) ? list : [...list, [partName(around.kit, now), now]];
    }));
    made.setValue(first);
    made.setTooltip(say('A part is what sits in a socket of the device. Its name is given on the kit sheet.'));
    return made;
  }
  if (spec.type === 'name' && spec.default === 'W') return new KeyField(first);
  return new NameField(
    first,
    choices(spec, kind),
    (value) => nameOf(spec, value, around.program) ?? (spec.type === 'name' ? value : undefined)
  );
}
/** A list that also takes a value which is not in it yet: a part that was unplugged. */
export class LooseDropdown extends Blockly.FieldDropdown {
  protected override doClassValidation_(value?: unknown): string | null {
    return value === undefined || value === null ? null : String(value);
  }
  protected override doValueUpdate_(value: string): void {
    this.value_ = value;
    const found = this.getOptions(false).find((o) => Array.isArray(o) && o[1] === value);
    (this as unknown as { selectedOption: unknown }).selectedOption = found ?? [String(value), value];
    this.isDirty_ = true;
  }
  /** The names behind the values may have changed. */
  refresh(): void {
    const before = this.getText();
    this.doValueUpdate_(String(this.getValue()));
    if (this.getText() !== before) this.forceRerender();
  }
}

const empty = () => new Blockly.FieldImage('data:image/svg+xml,<svg xmlns="http://www.w3.org/2000/svg"/>', STEM - 6, 1);

function build(
  block: Blockly.Block,
  def: BlockDef,
  words: readonly Piece[],
  slotOf: (name: string) => SlotSpec | undefined
): void {
  const statement = def.shape !== 'value';
  let firstOfRow = true;
  const stem = (input: Blockly.Input): Blockly.Input => {
    if (statement && firstOfRow) input.appendField(empty());
    firstOfRow = false;
    return input;
  };
  let pending: string[] = [];
  const flush = (input: Blockly.Input): void => {
    stem(input);
    for (const text of pending) input.appendField(text);
    pending = [];
  };
  for (const piece of words) {
    if ('text' in piece) pending.push(piece.text);
    else if ('body' in piece) {
      if (pending.length) flush(block.appendDummyInput());
      block.appendStatementInput(piece.body);
      firstOfRow = true;
    } else {
      const spec = slotOf(piece.slot);
      if (!spec) continue;
      if (def.kind === 'picture.value') {
        const input = block.appendDummyInput();
        flush(input);
        input.appendField(
          new PictureField((specFor(spec, around.kit) as { default: { picture: string } }).default.picture),
          piece.slot
        );
      } else if (holdsValue(spec)) flush(block.appendValueInput(piece.slot).setCheck(CHECK[spec.type]!));
      else {
        const input = block.appendDummyInput();
        flush(input);
        input.appendField(field(spec, def.kind, piece.slot), piece.slot);
      }
    }
  }
  if (pending.length) flush(block.appendDummyInput());
}

/** How far a block that grows has grown, as the block library keeps it: its words, and the routine it speaks of. */
export type Grown = { words: string; routine?: string; cannot?: string };
export type Growing = Blockly.Block & { grown_: Grown };
export const grownOf = (step: Step, program: Program): Grown => {
  const { grows } = definition(step.kind);
  return {
    words: grows!.words(step, program),
    ...(step.slots.routine !== undefined ? { routine: String(step.slots.routine) } : {}),
    ...(step.slots.cannot !== undefined ? { cannot: String(step.slots.cannot) } : {})
  };
};
export const specOf = (block: Blockly.Block, slot: string): SlotSpec | undefined => {
  const def = catalogue.get(block.type);
  if (!def?.grows) return def?.slots[slot];
  const step: Step = { id: '', kind: def.kind, slots: { routine: (block as Growing).grown_?.routine ?? '' } };
  return def.grows.slot(slot, around.program, step);
};

export function defineBlocks(): void {
  if ('lit.number' in Blockly.Blocks) return;
  keepPlaces();
  const literal = (type: string, check: string, field: () => Blockly.Field) =>
    (Blockly.Blocks[type] = {
      init(this: Blockly.Block) {
        this.appendDummyInput().appendField(field(), 'V');
        this.setOutput(true, check);
        this.setStyle('literal');
      }
    });
  literal('lit.number', 'Number', () => new NumberField('0'));
  literal('lit.any', 'Text', () => new NumberField('', true));
  literal('lit.text', 'Text', () => new TextField(''));
  literal('lit.picture', 'Picture', () => new PictureField(''));
  for (const def of catalogue.values()) {
    Blockly.Blocks[def.kind] = {
      init(this: Blockly.Block) {
        draggedByPointer(this);
        this.setStyle(def.section);
        this.setInputsInline(true);
        this.setTooltip(word(def.help));
        if (def.shape === 'value') this.setOutput(true, GIVES[def.gives]);
        else {
          if (def.shape !== 'starter') this.setPreviousStatement(true);
          if (def.shape !== 'end') this.setNextStatement(true);
        }
        if (!def.grows) build(this, def, pieces(word(def.words)), (name) => def.slots[name]);
      },
      ...(def.grows
        ? {
            saveExtraState(this: Growing) {
              return this.grown_;
            },
            loadExtraState(this: Growing, grown: Grown) {
              for (const input of [...this.inputList]) this.removeInput(input.name, true);
              this.inputList.length = 0;
              this.grown_ = grown;
              build(this, def, grownWords(def, grown.words), (name) => specOf(this, name));
            }
          }
        : {})
    };
  }
  Blockly.Blocks['routine.define'] = {
    init(this: Blockly.Block) {
      this.setStyle('reuse');
      this.setInputsInline(true);
      this.setNextStatement(true);
      this.setTooltip(say('A routine: a stack with a name. "Do" runs it. What it needs is added in its menu.'));
      const name = new Blockly.FieldTextInput('routine', (text: string) => text.trim().slice(0, 60) || null);
      this.appendDummyInput().appendField(empty()).appendField(say('routine')).appendField(name, 'NAME');
    },
    saveExtraState(this: Blockly.Block & { needs_?: string }) {
      return this.needs_ ? { needs: this.needs_ } : null;
    },
    loadExtraState(this: Blockly.Block & { needs_?: string }, { needs }: { needs: string }) {
      this.needs_ = needs;
      if (this.getInput('NEEDS')) this.removeInput('NEEDS');
      this.appendDummyInput('NEEDS').appendField(say('needs {needs}', { needs }));
    }
  };
}
