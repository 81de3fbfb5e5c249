/** Every definition of the catalogue as a block of the block library, made from its words and slots. */
import * as Blockly from 'blockly/core';
import { catalogue } from '../../../../../core/language/catalogue.ts';
import { ifWords } from '../../../../../core/language/blocks/choose.ts';
import { pieces, type BlockDef, type Piece, type SlotSpec } from '../../../../../core/language/define.ts';
import { partName, type Kit } from '../../../../../core/kit/kit.ts';
import type { Program } from '../../../../../core/language/program.ts';
import { NumberField, PictureField } from './fields.ts';
import { STEM } from './renderer.ts';

/** What the blocks' lists offer: set by the editor whenever program or kit change. */
export const around: {
  program: Program;
  kit: Kit;
  make: (what: 'variable' | 'routine') => Promise<string | undefined>;
} = {
  program: { stacks: [], routines: [], variables: [], loose: [] },
  kit: undefined as unknown as Kit,
  make: async () => undefined
};

const CHECK: Record<string, string[]> = {
  number: ['Number', 'Any'],
  condition: ['Boolean', 'Any'],
  picture: ['Picture', 'Any'],
  any: ['Number', 'Text', 'Boolean', 'Picture', 'Any']
};
const GIVES: Record<string, string> = { number: 'Number', condition: 'Boolean', picture: 'Picture', any: 'Any' };
const NEW = '__new';

const options = (spec: SlotSpec, current: () => string) => (): Blockly.MenuOption[] => {
  let list: [string, string][] = [];
  if (spec.type === 'choice') list = spec.options.map((o) => [o, o]);
  else if (spec.type === 'part') {
    list = around.kit.parts.filter((p) => p.type === spec.part).map((p) => [partName(around.kit, p.socket), p.socket]);
    if (!list.some(([, v]) => v === current())) list.push([partName(around.kit, current()), current()]);
  } else if (spec.type === 'variable' || spec.type === 'routine') {
    list = (spec.type === 'variable' ? around.program.variables : around.program.routines).map((v) => [v.name, v.id]);
    if (!list.some(([, v]) => v === current()))
      list.unshift([current() ? '(gone)' : `choose a ${spec.type}`, current()]);
    list.push([`new ${spec.type} ...`, NEW]);
  }
  return list;
};
function dropdown(spec: SlotSpec): Blockly.FieldDropdown {
  let value = 'default' in spec ? String(spec.default) : '';
  if (spec.type === 'variable') value = around.program.variables[0]?.id ?? '';
  if (spec.type === 'routine') value = around.program.routines[0]?.id ?? '';
  const made: { field?: Blockly.FieldDropdown } = {};
  const field = new LooseDropdown(
    options(spec, () => made.field?.getValue() ?? value),
    (chosen: string) => {
      if (chosen !== NEW) return chosen;
      void around.make(spec.type as 'variable').then((id) => id && field.setValue(id));
      return null;
    }
  );
  made.field = field;
  if (value) field.setValue(value);
  return field;
}
/** A list that also takes a value which is not in it yet: a part that was unplugged, a variable made a moment later. */
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
    this.doValueUpdate_(String(this.getValue()));
    this.forceRerender();
  }
}

function build(
  block: Blockly.Block,
  def: BlockDef | undefined,
  words: Piece[],
  slotOf: (name: string) => SlotSpec | undefined
): void {
  const statement = def?.shape !== 'value';
  let firstOfRow = true;
  const stem = (input: Blockly.Input): Blockly.Input => {
    if (statement && firstOfRow)
      input.appendField(
        new Blockly.FieldImage('data:image/svg+xml,<svg xmlns="http://www.w3.org/2000/svg"/>', STEM - 6, 1)
      );
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
      const spec = slotOf(piece.slot)!;
      if (def?.kind === 'picture.value') {
        const input = block.appendDummyInput();
        flush(input);
        input.appendField(new PictureField((spec as { default: { picture: string } }).default.picture), piece.slot);
      } else if (spec.type in CHECK) {
        const input = block.appendValueInput(piece.slot).setCheck(CHECK[spec.type]);
        flush(input);
      } else {
        const input = block.appendDummyInput();
        flush(input);
        input.appendField(dropdown(spec), piece.slot);
      }
    }
  }
  if (pending.length) flush(block.appendDummyInput());
}

type If = Blockly.Block & { branches_: number; otherwise_: boolean; rebuild_(): void };

export function defineBlocks(): void {
  if ('lit.number' in Blockly.Blocks) return;
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
  literal('lit.picture', 'Picture', () => new PictureField(''));
  for (const def of catalogue.values()) {
    Blockly.Blocks[def.kind] = {
      init(this: Blockly.Block) {
        this.setStyle(def.section);
        this.setInputsInline(true);
        this.setTooltip(def.help);
        if (def.shape === 'value') this.setOutput(true, GIVES[def.gives]);
        else {
          if (def.shape !== 'starter') this.setPreviousStatement(true);
          if (def.shape !== 'end') this.setNextStatement(true);
        }
        if (def.kind === 'choose.if') {
          const self = this as If;
          self.branches_ = 1;
          self.otherwise_ = false;
          self.rebuild_ = () => {
            for (const input of [...self.inputList]) self.removeInput(input.name, true);
            self.inputList.length = 0;
            build(self, def, pieces(ifWords(self.branches_, self.otherwise_)), () => ({ type: 'condition' }));
          };
          self.rebuild_();
        } else build(this, def, pieces(def.words), (name) => def.slots[name]);
      },
      ...(def.kind === 'choose.if'
        ? {
            saveExtraState(this: If) {
              return { branches: this.branches_, otherwise: this.otherwise_ };
            },
            loadExtraState(this: If, state: { branches: number; otherwise: boolean }) {
              this.branches_ = state.branches;
              this.otherwise_ = state.otherwise;
              this.rebuild_();
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
      this.setTooltip('A routine: a stack with a name. "Do" runs it.');
      const name = new Blockly.FieldTextInput('routine', (text: string) => text.trim() || null);
      this.appendDummyInput()
        .appendField(
          new Blockly.FieldImage('data:image/svg+xml,<svg xmlns="http://www.w3.org/2000/svg"/>', STEM - 6, 1)
        )
        .appendField('routine')
        .appendField(name, 'NAME');
    }
  };
}
