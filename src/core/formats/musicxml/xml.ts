/** XML as a plain tree. Documents that define entities, or are too large or deep, are refused. */
import { XMLBuilder, XMLParser } from 'fast-xml-parser';

export interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
  /** The text directly inside, trimmed. */
  readonly text: string;
}

export type XmlResult =
  { readonly ok: true; readonly root: Element } | { readonly ok: false; readonly message: string };

/** Largest score read, in characters, and deepest nesting of its elements. */
export const XML_LIMITS = { characters: 8_000_000, depth: 64 } as const;

type Node = Readonly<Record<string, unknown>>;

const ATTRIBUTES = ':@';
const TEXT = '#text';

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  // Only the five entities of XML itself and numbered characters, resolved below.
  processEntities: false,
  trimValues: true,
});

const NAMED: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
};

function decode(text: string): string {
  return text.replace(/&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|(\w+));/giu, (whole, ...groups) => {
    const [decimal, hex, name] = groups as (string | undefined)[];
    if (name !== undefined) return NAMED[name] ?? whole;
    const code = decimal === undefined ? Number.parseInt(hex ?? '', 16) : Number(decimal);
    return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : '';
  });
}

function toElement(node: Node, depth: number): Element | null {
  if (depth > XML_LIMITS.depth) throw new RangeError('too deep');
  const name = Object.keys(node).find((key) => key !== ATTRIBUTES);
  if (name === undefined || name === TEXT || name.startsWith('?')) return null;
  const inner = node[name] as readonly Node[];
  const attributes = (node[ATTRIBUTES] ?? {}) as Record<string, string>;
  return {
    name,
    attributes: Object.fromEntries(
      Object.entries(attributes).map(([key, value]) => [key, decode(String(value))]),
    ),
    children: inner.flatMap((child) => toElement(child, depth + 1) ?? []),
    text: decode(
      inner
        .map((child) => child[TEXT] ?? '')
        .join('')
        .trim(),
    ),
  };
}

const refuse = (message: string): XmlResult => ({ ok: false, message });

/** Reads an XML document. */
export function readXml(text: string): XmlResult {
  if (text.length > XML_LIMITS.characters) return refuse('This file is too large for a score.');
  // An internal subset is where entities would be defined; scores have no need of one.
  if (/<!ENTITY/iu.test(text) || /<!DOCTYPE[^>[]*\[/iu.test(text)) {
    return refuse('This file defines entities of its own, which Corvel does not read.');
  }
  try {
    const nodes = parser.parse(text, true) as readonly Node[];
    const root = nodes.map((node) => toElement(node, 0)).find((element) => element !== null);
    return root ? { ok: true, root } : refuse('This file holds no XML.');
  } catch (error) {
    const deep = error instanceof RangeError;
    return refuse(
      deep ? 'This file is nested too deeply for a score.' : 'This file is not well-formed XML.',
    );
  }
}

export const childrenNamed = (element: Element, name: string): readonly Element[] =>
  element.children.filter((child) => child.name === name);

export const childNamed = (element: Element | undefined, name: string): Element | undefined =>
  element?.children.find((child) => child.name === name);

/** Text of the element down a path of names; empty where it ends. */
export const textAt = (element: Element | undefined, ...path: readonly string[]): string =>
  path.reduce<Element | undefined>((inner, name) => childNamed(inner, name), element)?.text ?? '';

const builder = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  format: true,
  suppressEmptyNode: true,
});

/** An element to be written. */
export function element(
  name: string,
  attributes: Readonly<Record<string, string | number>> = {},
  ...content: readonly (Node | string | number)[]
): Node {
  const inner = content.map((child) =>
    typeof child === 'object' ? child : { [TEXT]: String(child) },
  );
  const named = Object.entries(attributes).map(([key, value]) => [key, String(value)]);
  return {
    [name]: inner,
    ...(named.length > 0 ? { [ATTRIBUTES]: Object.fromEntries(named) } : {}),
  };
}

export const writeXml = (root: Node): string => String(builder.build([root])).trim();
