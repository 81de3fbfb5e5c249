<script lang="ts">
  import { KeyboardNavigation } from '@blockly/keyboard-navigation';
  import { eventsOf } from '../../../../core/trace/apart.ts';
  import { later, say, word } from '../../../../core/words.ts';
  import * as Blockly from 'blockly/core';
  import * as En from 'blockly/msg/en';
  import './blockly/styles.ts';
  import { language } from '../../language.svelte.ts';
  import { onMount } from 'svelte';
  import { findBlock } from './find.ts';
  import { catalogue, definition, newStep, sentence, specFor } from '../../../../core/language/catalogue.ts';
  import {
    addRoutine,
    addVariable,
    neighbour,
    regrow,
    sameButPlaces,
    setSlot,
    takeIn
  } from '../../../../core/language/edit.ts';
  import { partName } from '../../../../core/kit/kit.ts';
  import { allIds, allSteps, freshId, isStep, type Program } from '../../../../core/language/program.ts';
  import { loadPython, pythonNow } from '../../python/python.ts';
  import NameDialog from '../../ui/NameDialog.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { actions as makeActions, pasting } from './actions.ts';
  import { around, defineBlocks, LooseDropdown, specOf } from './blockly/blocks.ts';
  import { mouthOver } from './blockly/mouth.ts';
  import { bringIn, readWorkspace, stateOf, tagsOf } from './blockly/convert.ts';
  import { hooks, NameField } from './blockly/fields.ts';
  import { marquee } from './blockly/marquee.ts';
  import { hideMeasuring } from './blockly/measuring.ts';
  import { ownKeys, registerMenu } from './blockly/menu.ts';
  import { album, USUAL } from './blockly/album.ts';
  import { offstage } from './blockly/offstage.ts';
  import { refusal } from './blockly/refusal.ts';
  import { FONT, THEMES } from './blockly/renderer.ts';
  import { TrayArea } from './blockly/tray-area.ts';

  /** where a block that is dropped is taken out: the tray */
  let { area }: { area: () => DOMRect } = $props();
  const w = useWorkbench();
  const { session, runs } = w;
  let host: HTMLDivElement;
  let ws = $state.raw<Blockly.WorkspaceSvg>();
  /** the program that the workspace shows */
  let shown: Program = { stacks: [], routines: [], variables: [], loose: [] };
  let names: NameDialog;
  /** why the block that is being dragged would not be taken where it was let go */
  let refused: string | undefined;
  /** what a block that holds others takes in where it was let go */
  let taking: { wrap: string; body: string; from: string } | undefined;
  let unwatch: (() => void) | null | undefined;

  function dark(): boolean {
    return document.documentElement.classList.contains('dark');
  }
  /** After a gesture: what the workspace shows becomes the program. */
  function settle(label: string) {
    if (!ws || handing || ws.isDragging()) return;
    pending = false;
    const read = readWorkspace(ws, session.project.program);
    const program = regrow(taking ? takeIn(read, taking.wrap, taking.body, taking.from) : read);
    taking = undefined;
    w.draft = undefined;
    if (JSON.stringify(program) === JSON.stringify(session.project.program)) return;
    // a block that has to grow for it is brought in line with the program
    shown = program === read ? program : shown;
    // a place is somebody's choice: what lies elsewhere without a hand goes back to it
    if (!dragged && sameButPlaces(program, session.project.program)) bringIn(ws, (shown = session.project.program));
    else session.program(label, program);
    dragged = false;
    // what is chosen says what it is now
    if (w.selected && host.contains(document.activeElement)) w.tell(says(w.selected));
  }
  /** somebody's hand or keys moved a block since the last gesture ended */
  let dragged = false;
  /** a card is on its way in: until it is dropped this is one gesture */
  let handing = false;
  const LABELS: Record<string, string> = {
    [Blockly.Events.BLOCK_MOVE]: later('move blocks'),
    [Blockly.Events.BLOCK_CREATE]: later('add a block'),
    [Blockly.Events.BLOCK_DELETE]: later('take a block out'),
    [Blockly.Events.BLOCK_CHANGE]: later('change a value')
  };
  let due: ReturnType<typeof setTimeout> | undefined;
  /** a gesture that is not in the program yet */
  let pending = false;
  function soon(label: string) {
    pending = true;
    clearTimeout(due);
    due = setTimeout(() => settle(label), 0);
  }
  let label = '';
  function listen(event: Blockly.Events.Abstract) {
    if (event.type === Blockly.Events.SELECTED) {
      const id = (event as Blockly.Events.Selected).newElementId;
      const block = id ? ws?.getBlockById(id) : null;
      // the chosen block stays chosen while the tray or another panel is used
      if (block) {
        w.selected = block.isShadow() ? block.getParent()?.id : block.id;
        if (!w.chosen.has(w.selected!)) w.chosen = new Set();
        if (host.contains(document.activeElement)) w.tell(says(w.selected!));
      } else if (host.contains(document.activeElement)) w.selected = undefined;
    }
    if (event.type === Blockly.Events.BLOCK_FIELD_INTERMEDIATE_CHANGE) {
      const { blockId, newValue } = event as Blockly.Events.BlockFieldIntermediateChange;
      const block = blockId ? ws?.getBlockById(blockId) : null;
      const at = block?.isShadow() ? hooks.spec(block.getField('V')!) : undefined;
      if (at) w.draft = { block: at.block.id, slot: at.slot, value: Number(newValue) };
    }
    if (event.type === Blockly.Events.VIEWPORT_CHANGE && ws?.isDragging()) offstage(ws, true);
    if (event.type === Blockly.Events.BLOCK_DRAG) {
      const { blockId, isStart } = event as Blockly.Events.BlockDrag;
      const block = ws?.getBlockById(blockId!);
      if (ws) offstage(ws, !!isStart);
      dragged = true;
      if (isStart) {
        // asked before the library lets go of the block: it pushes away what it does not take
        refused = undefined;
        unwatch?.();
        unwatch = block && watchDrag(block);
      } else {
        unwatch?.();
        unwatch = undefined;
        if (refused && block && !block.outputConnection?.isConnected()) {
          w.notice = refused;
          w.tell(refused);
        }
        // a drag that moved nothing settles too, so that what it would have taken in is forgotten
        soon(label || say('move blocks'));
      }
    }
    if (
      event.isUiEvent ||
      event.type === Blockly.Events.BLOCK_FIELD_INTERMEDIATE_CHANGE ||
      event.type === Blockly.Events.FINISHED_LOADING
    )
      return;
    label = word(LABELS[event.type] ?? later('change the program'));
    soon(label);
  }
  /** While a block is dragged: shows what it would take in; where it is let go, what it takes and why it is not taken. */
  function watchDrag(block: Blockly.BlockSvg): () => void {
    const outlined = (id: string | undefined) => {
      for (const e of host.querySelectorAll('.mb-taking-in')) e.classList.remove('mb-taking-in');
      if (id) ws?.getBlockById(id)?.getSvgRoot().classList.add('mb-taking-in');
    };
    const moved = () => outlined(mouthOver(block)?.from);
    const dropped = () => {
      const over = mouthOver(block);
      taking = over && { wrap: block.id, ...over };
      refused = refusal(block);
    };
    window.addEventListener('pointermove', moved);
    window.addEventListener('pointerup', dropped, { capture: true, once: true });
    return () => {
      window.removeEventListener('pointermove', moved);
      window.removeEventListener('pointerup', dropped, true);
      outlined(undefined);
    };
  }
  const act = makeActions(w);
  /** ids that an action is for: all that are chosen, if this block is one of them */
  const chosen = (id: string): string[] => (w.chosen.has(id) ? [...w.chosen] : [id]);
  const says = (id: string): string => {
    const { program, kit } = session.project;
    const step = [...allSteps(program)].find((s) => s.id === id);
    const routine = program.routines.find((r) => r.id === id);
    return step
      ? sentence(step, program, (socket) => partName(kit, socket))
      : routine
        ? say('routine {name}', { name: routine.name })
        : '';
  };
  /** Takes blocks out, and chooses what is nearest to where they were. */
  function remove(ids: readonly string[]) {
    const next = neighbour(session.project.program, ids);
    act.remove(ids);
    Object.assign(w, { selected: next, chosen: new Set() });
    if (next) requestAnimationFrame(() => focusOn(next));
  }
  const menu = {
    program: () => session.project.program,
    chosen: (b: Blockly.BlockSvg) => chosen(b.id),
    duplicate: (b: Blockly.BlockSvg, below: boolean) => act.duplicate(chosen(b.id), below),
    copy: (b: Blockly.BlockSvg) => void act.copy(chosen(b.id)),
    off: (b: Blockly.BlockSvg, off: boolean, below: boolean) => act.off(below ? [b.id] : chosen(b.id), off, below),
    park: (b: Blockly.BlockSvg, parked: boolean) => act.park(b.getRootBlock().id, parked),
    pull: (b: Blockly.BlockSvg) => act.pull(b.id),
    reshape: (b: Blockly.BlockSvg, change: Parameters<typeof act.reshape>[1]) => act.reshape(b.id, change),
    loop: (b: Blockly.BlockSvg) => act.loop(chosen(b.id)),
    compare: (b: Blockly.BlockSvg) => (w.panel = { kind: 'compare', id: b.getRootBlock().id }),
    inputs: (b: Blockly.BlockSvg) => (w.panel = { kind: 'names', id: b.id }),
    rename: (b: Blockly.BlockSvg) => {
      const field = b.getFields().find((f) => f instanceof NameField);
      w.panel = { kind: 'names', id: String(field?.getValue() ?? b.id) };
    },
    remove: (b: Blockly.BlockSvg) => remove(chosen(b.id)),
    line: (b: Blockly.BlockSvg) => w.writeAbout(b.getRootBlock().id),
    stop: (b: Blockly.BlockSvg) => runs.toggleStop(b.id),
    stops: (b: Blockly.BlockSvg) => runs.stops.some((s) => s.on === 'block' && s.block === b.id),
    toHere: (b: Blockly.BlockSvg) => void w.runTo(b.id),
    tryJust: (b: Blockly.BlockSvg) => (w.trying = new Set(chosen(b.id))),
    help: (b: Blockly.BlockSvg) =>
      (w.panel = { kind: 'help', id: b.type === 'routine.define' ? 'routine.do' : b.type }),
    note: async (b: Blockly.BlockSvg) => {
      const text = await names.ask(say('A note on this block'), 'note', tagsOf(b).note ?? '');
      if (text !== undefined) act.note(b.id, text);
    },
    routine: async (b: Blockly.BlockSvg) => {
      const name = await names.ask(say('What shall the routine be called?'), 'routine');
      if (name) act.routine(chosen(b.id), name);
    }
  };
  around.make = (what, name) => {
    const { program } = session.project;
    const made = what === 'routine' ? addRoutine(program, name, 40, 420) : addVariable(program, name, what === 'list');
    // the sheet has it at once: the block that asked for it shows it in the same gesture
    around.program = shown = made.program;
    bringIn(ws!, made.program);
    session.program(`new ${what} ${name}`, made.program);
    return 'routine' in made ? made.routine.id : made.variable.id;
  };
  hooks.spec = (field) => {
    const literal = field.getSourceBlock();
    const block = literal?.getParent();
    const slot = block?.inputList.find((i) => i.connection?.targetBlock() === literal)?.name;
    const spec = block && slot ? specOf(block, slot) : undefined;
    return spec && slot && block ? { spec: specFor(spec, around.kit), slot, block } : undefined;
  };
  hooks.blocks = (field, text) => {
    const at = hooks.spec(field);
    const value = pythonNow()?.readValue(text);
    if (!at || !isStep(value)) return;
    setTimeout(() => {
      const { program } = session.project;
      const taken = allIds(program);
      const fresh = (step: typeof value): typeof value => {
        const id = freshId(taken);
        taken.add(id);
        const slots = Object.fromEntries(Object.entries(step.slots).map(([k, v]) => [k, isStep(v) ? fresh(v) : v]));
        return { ...step, id, slots };
      };
      session.program(say('arithmetic as blocks'), setSlot(program, at.block.id, at.slot, fresh(value)));
    }, 0);
  };
  album.named = () => session.project.pictures ?? {};
  album.name = (name, picture) =>
    session.change(say('keep the picture {name}', { name }), {
      ...session.project,
      pictures: { ...session.project.pictures, [name]: picture }
    });
  album.point = (at) => (w.pixel = at);
  album.display = () => session.project.kit.display ?? USUAL;
  $effect(() => {
    const { facePixel } = w;
    album.onFace?.(facePixel);
  });

  // blocks are measured by their font, so it must be there first
  onMount(() => {
    let stop: (() => void) | undefined;
    let gone = false;
    const begin = () => {
      if (!gone) stop ??= stage();
    };
    void document.fonts.load(`500 11pt ${FONT}`).finally(begin);
    const late = setTimeout(begin, 3000);
    return () => {
      gone = true;
      clearTimeout(late);
      stop?.();
    };
  });
  function stage(): () => void {
    Blockly.setLocale((language.library ?? En) as unknown as Record<string, string>);
    Blockly.setLocale({ WORKSPACE_ARIA_LABEL: say('Blocks of the program') });
    defineBlocks();
    registerMenu(menu);
    around.program = session.project.program;
    around.kit = session.project.kit;
    ws = Blockly.inject(host, {
      renderer: 'mossbell',
      theme: dark() ? THEMES.dark : THEMES.light,
      media: '/blockly/',
      trashcan: false,
      sounds: false,
      comments: false,
      disable: true,
      grid: { spacing: 24, length: 2, colour: dark() ? '#37423b' : '#d8d9c8', snap: false },
      move: { scrollbars: true, drag: true, wheel: true },
      zoom: { controls: false, wheel: false, pinch: true, startScale: 1, maxScale: 2, minScale: 0.4 }
    });
    const keyboard = new KeyboardNavigation(ws);
    // copying, history and taking out are ours
    ownKeys();
    // history is ours: values of the project, on every page
    ws.MAX_UNDO = 0;
    ws.addChangeListener(listen);
    ws.getComponentManager().addComponent({
      component: new TrayArea(area),
      weight: 1,
      capabilities: [Blockly.ComponentManager.Capability.DELETE_AREA, Blockly.ComponentManager.Capability.DRAG_TARGET]
    });
    // where the tray is may have changed since the last drag
    const aim = () => ws?.recordDragTargets();
    host.addEventListener('pointerdown', aim, true);
    bringIn(ws, session.project.program);
    shown = session.project.program;
    hideMeasuring();
    requestAnimationFrame(() => {
      host.dataset.ready = '1';
      void loadPython();
      void pasting();
    });
    const theme = () => ws?.setTheme(dark() ? THEMES.dark : THEMES.light);
    window.addEventListener('mossbell:theme', theme);
    // out of sight it has no size, and what is measured then would move the view
    const resize = new ResizeObserver(() => ws && host.offsetWidth && Blockly.svgResize(ws));
    resize.observe(host);
    const stopMarquee = marquee(ws, host, (ids) => {
      w.chosen = new Set(ids);
      if (ids.length) w.tell(say('{n, plural, one {# block} other {# blocks}} chosen', { n: ids.length }));
    });
    host.addEventListener('pointerdown', pull, true);
    Object.assign(window, {
      mossbellWorkspace: ws,
      mossbellEditor: {
        act,
        session,
        w,
        screen: () => readWorkspace(ws!, session.project.program),
        /** the sheet as the library writes it, and one made anew from the program */
        sheets: async () => {
          const { written, anew } = await import('./blockly/written.ts');
          return [written(ws!), anew(session.project.program)];
        }
      },
      mossbellOpening: async () => (await import('./blockly/measure.ts')).opening(ws!, session.project.program)
    });
    return () => {
      clearTimeout(due);
      if (pending && ws) {
        // while an effect is torn down the session is read as it was before: what is still to come is put in after that
        const last = regrow(readWorkspace(ws, session.project.program));
        queueMicrotask(() => {
          if (session.project.text === undefined) session.program(label || say('change the program'), last);
        });
      }
      resize.disconnect();
      stopMarquee();
      host.removeEventListener('pointerdown', pull, true);
      host.removeEventListener('pointerdown', aim, true);
      window.removeEventListener('mossbell:theme', theme);
      keyboard.dispose();
      ws?.dispose();
      ws = undefined;
    };
  }

  /** With Alt one block comes out of its stack, and what hung below it stays. */
  function pull(event: PointerEvent) {
    if (!event.altKey || !ws) return;
    const id = findBlock(event.target as Element);
    const block = id ? ws.getBlockById(id) : null;
    if (!block?.previousConnection || !block.getNextBlock()) return;
    const below = block.getNextBlock()!;
    const above = block.previousConnection.targetConnection;
    Blockly.Events.setGroup(true);
    block.nextConnection!.disconnect();
    if (above) {
      above.disconnect();
      above.connect(below.previousConnection!);
    }
    Blockly.Events.setGroup(false);
  }
  /** ids that keys act on: what the focus is on, also before the library tells that it is chosen */
  function targets(): string[] {
    if (w.chosen.size) return [...w.chosen];
    const node = Blockly.getFocusManager().getFocusedNode();
    const block = node instanceof Blockly.BlockSvg && node.workspace === ws ? node : undefined;
    const id = (block?.isShadow() ? block.getParent()?.id : block?.id) ?? w.selected;
    return id ? [id] : [];
  }
  const ours = (event: Event): boolean =>
    host.contains(document.activeElement) &&
    !(event.target instanceof HTMLInputElement) &&
    !(event.target instanceof HTMLTextAreaElement);
  function clipboard(event: ClipboardEvent) {
    if (!ws || !event.clipboardData || !ours(event)) return;
    const ids = targets();
    if (event.type === 'paste') {
      event.preventDefault();
      const view = ws.getMetricsManager().getViewMetrics(true);
      const html = event.clipboardData.getData('text/html');
      const data = { html, text: event.clipboardData.getData('text/plain') };
      void act.paste(data, Math.round(view.left + 60), Math.round(view.top + 60), w.selected).then(([first]) => {
        if (first) requestAnimationFrame(() => focusOn(first));
      });
    } else if (ids.length) {
      event.preventDefault();
      act.fill(event.clipboardData, ids);
      if (event.type === 'cut') remove(ids);
    }
  }
  function keys(event: KeyboardEvent) {
    if (!ws || !ours(event) || ws.isDragging()) return;
    const ids = targets();
    const ctrl = event.ctrlKey || event.metaKey;
    if ((event.key === 'Delete' || event.key === 'Backspace') && ids.length) {
      event.preventDefault();
      remove(ids);
    } else if (ctrl && event.key.toLowerCase() === 'd' && ids.length) {
      event.preventDefault();
      act.duplicate(ids, event.shiftKey);
    } else if (ctrl && event.key.toLowerCase() === 'f') {
      event.preventDefault();
      w.panel = { kind: 'find', id: '' };
    } else if (event.key === 'Escape' && w.chosen.size) w.chosen = new Set();
  }
  /** Enter on a block opens its first slot or list; on a slot the library opens it itself. */
  function enter(event: KeyboardEvent) {
    if (!ws || event.key !== 'Enter' || !ours(event) || ws.isDragging() || ws.keyboardMoveInProgress) return;
    const node = Blockly.getFocusManager().getFocusedNode();
    if (!(node instanceof Blockly.BlockSvg) || node.isShadow()) return;
    event.stopPropagation();
    event.preventDefault();
    for (const input of node.inputList) {
      const literal = input.connection?.targetBlock();
      const field =
        input.fieldRow.find((one) => one.isClickable()) ??
        (literal?.isShadow() ? literal.inputList[0]?.fieldRow.find((one) => one.isClickable()) : undefined);
      if (!field) continue;
      Blockly.getFocusManager().focusNode(field as unknown as Blockly.IFocusableNode);
      return void field.showEditor();
    }
  }
  /** Moves the keyboard to a block. */
  export function focusOn(id: string) {
    const block = ws?.getBlockById(id);
    if (!block) return;
    intoView(block);
    Blockly.getFocusManager().focusNode(block);
    w.selected = id;
  }

  // the program changed elsewhere: undo, a mend, the kit sheet
  $effect(() => {
    const { program, kit } = session.project;
    around.program = program;
    around.kit = kit;
    if (!ws) return;
    if (program !== shown) {
      bringIn(ws, program);
      shown = program;
    }
    refreshNames();
    mark();
  });
  /** Names in lists follow kit, variables and routines. */
  function refreshNames() {
    Blockly.Events.disable();
    for (const block of ws!.getAllBlocks(false))
      for (const field of block.getFields())
        if (field instanceof LooseDropdown || field instanceof NameField) field.refresh();
    Blockly.Events.enable();
  }
  /** Where a block itself ends: its width counts what stands in its mouth too. */
  const rightEnd = (root: SVGGElement): number =>
    root.querySelector<SVGGraphicsElement>(':scope > .blocklyPath')?.getBBox().width ?? 0;
  // remarks: a small clay dot at the right
  function mark() {
    if (!ws) return;
    host.querySelectorAll('.mb-remark').forEach((e) => e.remove());
    const flagged = new Set(w.toCheck.flatMap((r) => r.blocks));
    const { program } = session.project;
    for (const block of ws.getAllBlocks(false)) {
      const root = block.getSvgRoot();
      if (flagged.has(block.id)) {
        const dot = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
        dot.setAttribute('class', 'mb-remark');
        dot.setAttribute('r', '4.5');
        dot.setAttribute('cx', String(rightEnd(root) - 5));
        dot.setAttribute('cy', '5');
        root.append(dot);
      }
      root.querySelectorAll(':scope > .mb-halt').forEach((e) => e.remove());
      const stop = runs.stops.find((s) => s.on === 'block' && s.block === block.id);
      if (stop) {
        // a small flag on its pole, left of the stem: the run stands still before this block
        const flag = document.createElementNS('http://www.w3.org/2000/svg', 'path');
        flag.setAttribute('class', `mb-halt${stop.off ? ' mb-halt-off' : ''}`);
        flag.setAttribute('d', 'M0 0V16M0 1H9L6 4.5L9 8H0');
        flag.setAttribute('transform', 'translate(-13 6)');
        root.append(flag);
      }
      root.querySelectorAll(':scope > .mb-note').forEach((e) => e.remove());
      const { note } = tagsOf(block);
      if (note) {
        // a small folded page at the right end, its words in the tooltip
        const page = document.createElementNS('http://www.w3.org/2000/svg', 'path');
        page.setAttribute('class', 'mb-note');
        page.setAttribute('d', 'M0 0H8L12 4V14H0ZM8 0V4H12M3 7H9M3 10H9');
        page.setAttribute('transform', `translate(${rightEnd(root) + 6} 8)`);
        root.append(page);
        block.setTooltip(`Note: ${note}`);
      }
      const top = block.getRootBlock();
      root.classList.toggle(
        'mb-parked',
        block === top && program.stacks.some((s) => s.parked && s.steps[0]?.id === top.id)
      );
      root.classList.toggle(
        'mb-loose',
        block === top &&
          !block.isShadow() &&
          !program.stacks.some((s) => s.parked && s.steps[0]?.id === top.id) &&
          block.type !== 'routine.define' &&
          catalogue.get(block.type)?.shape !== 'starter'
      );
      root.classList.toggle('mb-off', block.hasDisabledReason('off'));
    }
  }
  $effect(() => {
    void w.remarks;
    void runs.stops;
    requestAnimationFrame(mark);
  });

  // what runs now, and what is pointed at elsewhere
  let litNow: string[] = [];
  $effect(() => {
    const lit = runs.lit;
    for (const id of litNow) if (!lit.includes(id)) ws?.getBlockById(id)?.getSvgRoot().classList.remove('mb-running');
    for (const id of lit) ws?.getBlockById(id)?.getSvgRoot().classList.add('mb-running');
    litNow = lit;
  });
  const failed = $derived(runs.run && runs.run.version >= 0 ? eventsOf(runs.run.trace, 'error')[0]?.block : undefined);
  let failedNow: string | undefined;
  $effect(() => {
    if (failedNow) ws?.getBlockById(failedNow)?.getSvgRoot().classList.remove('mb-failed');
    failedNow = failed;
    if (failed) ws?.getBlockById(failed)?.getSvgRoot().classList.add('mb-failed');
  });
  let chosenNow: string[] = [];
  $effect(() => {
    for (const id of chosenNow) ws?.getBlockById(id)?.getSvgRoot().classList.remove('mb-chosen');
    chosenNow = [...w.chosen];
    for (const id of chosenNow) ws?.getBlockById(id)?.getSvgRoot().classList.add('mb-chosen');
  });
  let pointedNow: string | undefined;
  $effect(() => {
    const id = w.pointed;
    if (pointedNow) ws?.getBlockById(pointedNow)?.getSvgRoot().classList.remove('mb-pointed');
    if (id) ws?.getBlockById(id)?.getSvgRoot().classList.add('mb-pointed');
    pointedNow = id;
  });
  $effect(() => {
    const id = w.selected;
    const block = id ? ws?.getBlockById(id) : null;
    if (block && Blockly.getSelected() !== block && !host.contains(document.activeElement)) {
      (Blockly.getSelected() as Blockly.BlockSvg | null)?.unselect?.();
      block.select();
      intoView(block);
    }
  });
  /** The view stays where it is, unless the block is not in it. */
  function intoView(block: Blockly.BlockSvg) {
    const view = ws!.getMetricsManager().getViewMetrics(true);
    const { x, y } = block.getRelativeToSurfaceXY();
    if (x < view.left || y < view.top || x > view.left + view.width - 60 || y > view.top + view.height - 30)
      ws!.centerOnBlock(block.id);
  }
  function hover(event: PointerEvent) {
    const id = findBlock(event.target as Element);
    if (id !== w.pointed) w.pointed = id;
    // a value block tells what it would give now, while the run stands still
    const values = runs.seenNow?.values;
    let block =
      values && ws
        ? ws.getBlockById((event.target as Element).closest('.blocklyDraggable')?.getAttribute('data-id') ?? '')
        : null;
    while (block && !(values && block.id in values) && block.outputConnection) block = block.getParent();
    tip =
      block && values && block.id in values
        ? {
            text: values[block.id],
            x: event.clientX - host.getBoundingClientRect().left + 12,
            y: event.clientY - host.getBoundingClientRect().top + 16
          }
        : undefined;
  }
  let tip = $state.raw<{ text: string; x: number; y: number }>();

  /** A card from the tray was dragged: the block appears under the pointer and the drag is handed over. */
  export function dragIn(kind: string, event: PointerEvent, slots: Record<string, string> = {}) {
    if (!ws) return;
    const scale = ws.scale;
    const at = Blockly.utils.svgMath.screenToWsCoordinates(
      ws,
      new Blockly.utils.Coordinate(event.clientX - 14 * scale, event.clientY - 14 * scale)
    );
    handing = true;
    const dropped = () => {
      window.removeEventListener('pointerup', dropped, true);
      window.removeEventListener('pointercancel', dropped, true);
      setTimeout(() => {
        handing = false;
        settle(say('add a block'));
      }, 0);
    };
    window.addEventListener('pointerup', dropped, true);
    window.addEventListener('pointercancel', dropped, true);
    // the sheet must not move under the hand: the drag switches this on again when it ends
    ws.setResizesEnabled(false);
    Blockly.Events.setGroup(true);
    const block = create(kind, at.x, at.y, slots);
    Blockly.Events.setGroup(false);
    if (!block) return;
    block.getSvgRoot().dispatchEvent(
      new PointerEvent('pointerdown', {
        bubbles: true,
        clientX: event.clientX,
        clientY: event.clientY,
        pointerId: event.pointerId,
        pointerType: event.pointerType,
        button: 0,
        buttons: 1,
        isPrimary: true
      })
    );
  }
  function create(
    kind: string,
    x: number,
    y: number,
    slots: Record<string, string> = {}
  ): Blockly.BlockSvg | undefined {
    const { program } = session.project;
    const ids = allIds(program);
    for (const b of ws!.getAllBlocks(false)) ids.add(b.id);
    if (kind === 'routine.define') {
      const name = say('routine {n}', { n: program.routines.length + 1 });
      return Blockly.serialization.blocks.append(
        { type: kind, id: freshId(ids, 'r'), fields: { NAME: name }, x, y },
        ws!
      ) as Blockly.BlockSvg;
    }
    const step = newStep(kind, freshId(ids), program, session.project.kit);
    const alone = [{ id: '', x: 0, y: 0, steps: [{ ...step, slots: { ...step.slots, ...slots } }] }];
    const own = regrow({ ...program, loose: [], stacks: alone });
    return Blockly.serialization.blocks.append(
      { ...stateOf(own.stacks[0].steps[0], program), x, y },
      ws!
    ) as Blockly.BlockSvg;
  }
  /** A number was let go over the program: into the slot that is there. @returns whether there was one */
  export function dropNumber(x: number, y: number, value: number): boolean {
    const id = document.elementFromPoint(x, y)?.closest('.blocklyShadow')?.getAttribute('data-id');
    const shadow = id ? ws?.getBlockById(id) : undefined;
    const place = shadow?.outputConnection?.targetConnection;
    const holder = place?.getSourceBlock();
    const name = place?.getParentInput()?.name;
    const spec = holder && name ? definition(holder.type).slots[name] : undefined;
    if (!holder || !name || spec?.type !== 'number') return false;
    session.program(say('write {value}', { value }), setSlot(session.project.program, holder.id, name, value));
    return true;
  }
  /** A card was activated by key or click: below the chosen block if it fits there, otherwise in a free place. */
  export function add(kind: string, slots: Record<string, string> = {}) {
    if (!ws) return;
    const chosen = w.selected ? ws.getBlockById(w.selected) : null;
    const { y } = ws.getBlocksBoundingBox().getHeight() ? { y: ws.getBlocksBoundingBox().bottom + 24 } : { y: 24 };
    Blockly.Events.setGroup(true);
    const block = create(kind, 24, y, slots);
    if (block && chosen && !chosen.isShadow()) {
      if (block.outputConnection) {
        const free = chosen.inputList.find(
          (i) =>
            i.type === Blockly.inputs.inputTypes.VALUE &&
            (!i.connection!.targetBlock() || i.connection!.targetBlock()!.isShadow()) &&
            ws!.connectionChecker.canConnect(block.outputConnection, i.connection, false)
        );
        free?.connection!.connect(block.outputConnection);
      } else if (block.previousConnection) {
        const inner = chosen.inputList.find(
          (i) => i.type === Blockly.inputs.inputTypes.STATEMENT && !i.connection!.targetBlock()
        );
        const below = inner?.connection ?? chosen.nextConnection;
        if (below) below.connect(block.previousConnection);
      }
    }
    Blockly.Events.setGroup(false);
    if (block) {
      (Blockly.getSelected() as Blockly.BlockSvg | null)?.unselect?.();
      block.select();
      w.selected = block.id;
      w.tell(say('Added: {name}', { name: word(catalogue.get(kind)?.label[0] ?? '') }));
    }
  }
  export function zoom(by: number) {
    if (by === 0) ws?.zoomToFit();
    else ws?.zoomCenter(by);
  }
  export function tidy() {
    dragged = true;
    ws?.cleanUp();
  }
  /** The workspace as a drawing. */
  export const workspace = (): Blockly.WorkspaceSvg | undefined => ws;
</script>

<svelte:window oncopy={clipboard} oncut={clipboard} onpaste={clipboard} onkeydown={keys} onkeydowncapture={enter} />
<div
  bind:this={host}
  class="mb-editor h-full w-full"
  role="presentation"
  onpointermove={hover}
  onpointerleave={() => ((w.pointed = undefined), (tip = undefined))}
  data-testid="blocks"
></div>
{#if tip}<output
    class="pointer-events-none absolute z-20 max-w-64 truncate rounded-md border border-rule bg-card px-2 py-0.5 font-mono text-[13px] shadow-md"
    style="left: {tip.x}px; top: {tip.y}px"
    data-testid="value-tip">{tip.text}</output
  >{/if}
<NameDialog bind:this={names} />
