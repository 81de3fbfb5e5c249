/** Words of a lesson as HTML. They may come from anywhere, so nothing stays in them but what words are made of. */
import DOMPurify from 'dompurify';
import { marked } from 'marked';

const TAGS =
  'h3 h4 h5 h6 p br hr strong em del code pre blockquote ul ol li a img table thead tbody tr th td input'.split(' ');
const ATTRIBUTES = ['href', 'src', 'alt', 'title', 'align', 'start', 'type', 'checked', 'disabled'];

export function proseOf(markdown: string): string {
  const clean = DOMPurify.sanitize(marked.parse(markdown, { async: false }), {
    ALLOWED_TAGS: TAGS,
    ALLOWED_ATTR: ATTRIBUTES,
    // to the handbook and to the web; pictures that are here
    ALLOWED_URI_REGEXP: /^(?:https?:\/\/|\/handbook|#|data:image\/(?:png|jpeg|gif|webp);base64,)/i,
    RETURN_DOM_FRAGMENT: true
  });
  for (const image of clean.querySelectorAll('img'))
    if (!/^data:image\/(png|jpeg|gif|webp);base64,/.test(image.getAttribute('src') ?? '')) image.remove();
  for (const input of clean.querySelectorAll('input')) input.replaceWith(input.hasAttribute('checked') ? '☒ ' : '☐ ');
  for (const link of clean.querySelectorAll('a')) {
    link.target = '_blank';
    link.rel = 'noopener noreferrer';
  }
  const host = document.createElement('div');
  host.append(clean);
  return host.innerHTML;
}
