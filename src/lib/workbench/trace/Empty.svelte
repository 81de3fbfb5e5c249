<!-- Where a trace will stand, before the first run: what will be seen, with a small example. -->
<script lang="ts">
  import { say } from '../../../../core/words.ts';
</script>

<div class="absolute inset-0 flex items-center gap-8 overflow-auto px-4 py-3">
  <svg viewBox="0 0 300 110" class="h-full max-h-[130px] w-[300px] shrink-0 max-[820px]:hidden" aria-hidden="true">
    {#each [['order', 0, 14], ['act', 16, 92], ['order', 110, 30], ['act', 142, 118], ['act', 262, 16]] as [family, x, width] (x)}<rect
        {x}
        y="6"
        {width}
        height="18"
        rx="2"
        fill="var(--{family})"
      />{/each}
    <g fill="none" stroke-width="2" stroke-linejoin="round">
      <path d="M0 64L16 64L26 42H98L108 64H142L152 42H250L260 64H300" stroke="#b5842a" />
      <path d="M0 98L16 98L108 78H142L190 98L260 88H300" stroke="var(--water)" />
    </g>
    <g stroke="var(--rule)"><path d="M0 30H300M0 70H300M0 105H300" /></g>
    <path d="M190 0V110" stroke="#b5842a" stroke-width="1.5" /><circle cx="190" cy="3" r="3" fill="#b5842a" />
  </svg>
  <ul class="flex max-w-[560px] list-none flex-col gap-1.5">
    <li><b>{say('Press Rehearse.')}</b> {say('Everything the run does is written here, on one axis of time.')}</li>
    <li class="text-soft">{say('Bars are blocks: which one ran, and for how long.')}</li>
    <li class="text-soft">
      {say(
        'Curves are the machine: what its wheels did, what its sensors saw. Drag along them to see any moment again.'
      )}
    </li>
  </ul>
</div>
