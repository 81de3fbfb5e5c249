<!-- What is kept of whom, for everybody to read. -->
<script lang="ts">
  import { say } from '../../../core/words.ts';
  import Me from '$lib/class/Me.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import Path from '$lib/ui/Path.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
</script>

<svelte:head><title>{say('What is kept · Moss Bell')}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path steps={[{ name: say('Shelf'), href: '/' }, { name: say('What is kept') }]} />{/snippet}
    <span class="flex-1"></span>
    <LanguageChoice />
    <Me />
  </TopBar>
  <main class="flex-1 overflow-auto px-6 py-8">
    <article class="mx-auto flex max-w-[64ch] flex-col gap-3 leading-relaxed">
      <h2 class="text-[22px]">{say('What is kept')}</h2>
      <p>
        {say(
          'All of it lies on this one computer, in one folder. Nothing is sent anywhere else, and nothing is fetched from the internet.'
        )}
      </p>
      <h3 class="text-[17px]">{say('Of a pupil')}</h3>
      <p>
        {say(
          'The nickname, the class and group. The three words of the card, twice: scrambled, to sign in by, and sealed with a key of this computer, so that the teacher can print the card again. What the pupil makes: projects with their versions and pictures, runs, what was handed in and said of it, answers to lessons. When it was made. The teacher can save all of it as a file.'
        )}
      </p>
      <p>{say('No real name, no mail, no birthday, no address of a computer, no picture of a person.')}</p>
      <h3 class="text-[17px]">{say('Of a teacher')}</h3>
      <p>
        {say(
          'A name and a scrambled form of the passphrase; classes, errands, lessons; a list of sign-ins, new cards and deletions in the own classes.'
        )}
      </p>
      <h3 class="text-[17px]">{say('Of a guest')}</h3>
      <p>
        {say(
          'A random number in the browser, by which it finds its own projects again, and those projects. Whoever clears the browser’s data loses the way to them.'
        )}
      </p>
      <h3 class="text-[17px]">{say('For how long')}</h3>
      <p>
        {say(
          'Until the teacher takes a pupil out, or deletes the class with everything: then it is overwritten on the disk too. A project taken off the shelf goes after 30 days, unless it was handed in. Who signed in is signed out after 12 hours without a visit; for a year the browser keeps a mark by which this computer knows that you signed in there before.'
        )}
      </p>
    </article>
  </main>
</div>
