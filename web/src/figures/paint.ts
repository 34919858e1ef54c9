/** Puts shapes into an SVG group, element for element, touching only what changed: a moving figure is painted past React. */

const SVG = 'http://www.w3.org/2000/svg';

export type Attributes = Readonly<Record<string, string | number>>;

/** Makes the group's children these elements, in this order. The group belongs to the painter: nothing else writes into it. */
export function paint(group: Element | null, name: 'path' | 'circle' | 'ellipse', all: readonly Attributes[]): void {
  if (!group) return;
  while (group.childElementCount > all.length) group.lastElementChild?.remove();
  all.forEach((attributes, i) => {
    const element = group.children[i] ?? group.appendChild(document.createElementNS(SVG, name));
    for (const key in attributes) {
      const value = String(attributes[key]);
      if (element.getAttribute(key) !== value) element.setAttribute(key, value);
    }
  });
}
