/**
 * Colours that a drawing gives by style sheet and class, put onto the shapes themselves; and everything that points outside
 * the file taken out before the drawing comes near the page, so that nothing is ever fetched. Works on an inert document.
 */
import { say } from '../../../core/words.ts';

/** What of a style counts. */
export const STYLED = ['fill', 'stroke', 'stroke-width'] as const;
const OUTSIDE = /url\(\s*(?!["']?#)|@import|^\s*(?:https?:|\/\/|ftp:|file:)/i;

/** How much a selector weighs (CSS Selectors Level 4, section 17: ids, then classes, attributes and pseudo-classes, then types). */
export function weightOf(selector: string): number {
  const bare = selector.replace(/\[[^\]]*\]/g, '.x').replace(/::[\w-]+/g, ' x');
  const ids = bare.match(/#[\w-]+/g)?.length ?? 0;
  const classes = bare.match(/[.:][\w-]+/g)?.length ?? 0;
  const types = bare.match(/(?:^|[\s>+~])[a-z][\w-]*/gi)?.length ?? 0;
  return ids * 10_000 + classes * 100 + types;
}

/** @returns what was left out, in sentences */
export function plainStyles(svg: SVGElement): string[] {
  const told = new Set<string>();
  const outside = (what: string): void =>
    void told.add(say('{what} points outside the file and was left out: nothing is fetched', { what }));
  const rules: { selector: string; style: CSSStyleDeclaration; weight: number }[] = [];
  for (const element of svg.querySelectorAll('style')) {
    const css = element.textContent ?? '';
    if (OUTSIDE.test(css)) outside('<style>');
    element.remove();
    // a sheet made this way takes no @import, and belongs to no document that could fetch
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(css.replace(/@import[^;]*;?/gi, ''));
    for (const rule of sheet.cssRules)
      if (rule instanceof CSSStyleRule)
        for (const selector of rule.selectorText.split(','))
          rules.push({ selector: selector.trim(), style: rule.style, weight: weightOf(selector) });
  }
  rules.sort((a, b) => a.weight - b.weight);
  const own = new Map<Element, Record<string, string>>();
  for (const { selector, style } of rules) {
    let hit: Element[];
    try {
      hit = [...svg.querySelectorAll(selector), ...(svg.matches(selector) ? [svg] : [])];
    } catch {
      continue;
    }
    for (const element of hit)
      for (const key of STYLED) {
        const value = style.getPropertyValue(key);
        if (value) own.set(element, { ...own.get(element), [key]: value });
      }
  }
  for (const element of [svg, ...svg.querySelectorAll<SVGElement>('*')]) {
    // the element's own style comes before the sheet's, the sheet's before its attributes
    const inline = Object.fromEntries(STYLED.map((key) => [key, element.style?.getPropertyValue(key) ?? '']));
    for (const key of STYLED) {
      const value = inline[key] || own.get(element)?.[key];
      if (value) element.setAttribute(key, value);
    }
    for (const { name, value } of [...element.attributes]) {
      const points = /^(xlink:)?href$/.test(name) ? !value.startsWith('#') : OUTSIDE.test(value);
      if (points && !/^xmlns/.test(name)) outside(`<${element.nodeName.toLowerCase()}> (${name})`);
      if (name === 'style' || name === 'class' || (points && !/^xmlns/.test(name))) element.removeAttribute(name);
    }
  }
  return [...told];
}
