/** XML as a plain tree. Documents that define entities, or are too large or deep, are refused. */
import { lookUp } from '../../lists';
import { XMLBuilder, XMLParser } from 'fast-xml-parser';

/** An element as it was read. */
export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
  /** The text directly inside, trimmed. */
  readonly text: string;
}

type XmlResult =
  | { readonly ok: true; readonly root: XmlElement }
  | { readonly ok: false; readonly message: string };

/** Largest score read, in characters, and deepest nesting of its elements. */
export const XML_LIMITS = { characters: 8_000_000, depth: 64 } as const;

type ParsedNode = Readonly<Record<string, unknown>>;

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
    if (name !== undefined) return lookUp(NAMED, name) ?? whole;
    const code = decimal === undefined ? Number.parseInt(hex ?? '', 16) : Number(decimal);
    return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : '';
  });
}

function toElement(node: ParsedNode, depth: number): XmlElement | null {
  if (depth > XML_LIMITS.depth) throw new RangeError('too deep');
  const name = Object.keys(node).find((key) => key !== ATTRIBUTES);
  if (name === undefined || name === TEXT || name.startsWith('?')) return null;
  const inner = node[name] as readonly ParsedNode[];
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

/** An internal subset is where entities would be defined; scores have no need of one, nor of two types. */
function definesEntities(text: string): boolean {
  if (text.includes('<!ENTITY')) return true;
  const start = text.indexOf('<!DOCTYPE');
  if (start < 0) return false;
  const end = text.indexOf('>', start);
  const subset = text.indexOf('[', start);
  return (subset >= 0 && (end < 0 || subset < end)) || text.includes('<!DOCTYPE', start + 1);
}

/** Reads an XML document. */
export function readXml(text: string): XmlResult {
  if (text.length > XML_LIMITS.characters) return refuse('This file is too large for a score.');
  if (definesEntities(text)) {
    return refuse('This file defines entities of its own, which Corvel does not read.');
  }
  try {
    const nodes = parser.parse(text, true) as readonly ParsedNode[];
    const root = nodes.map((node) => toElement(node, 0)).find((element) => element !== null);
    return root ? { ok: true, root } : refuse('This file holds no XML.');
  } catch (error) {
    const deep = error instanceof RangeError;
    return refuse(
      deep ? 'This file is nested too deeply for a score.' : 'This file is not well-formed XML.',
    );
  }
}

/** The children of a name, in order. */
export const childrenNamed = (element: XmlElement, name: string): readonly XmlElement[] =>
  element.children.filter((child) => child.name === name);

/** The first child of a name. */
export const childNamed = (element: XmlElement | undefined, name: string): XmlElement | undefined =>
  element?.children.find((child) => child.name === name);

/** Text of the element down a path of names; empty where it ends. */
export const textAt = (element: XmlElement | undefined, ...path: readonly string[]): string =>
  path.reduce<XmlElement | undefined>((inner, name) => childNamed(inner, name), element)?.text ??
  '';

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
  ...content: readonly (ParsedNode | string | number)[]
): ParsedNode {
  const inner = content.map((child) =>
    typeof child === 'object' ? child : { [TEXT]: String(child) },
  );
  const named = Object.fromEntries(
    Object.entries(attributes).map(([key, value]): [string, string] => [key, String(value)]),
  );
  return {
    [name]: inner,
    ...(Object.keys(named).length > 0 ? { [ATTRIBUTES]: named } : {}),
  };
}

/** A tree as text. */
export const writeXml = (root: ParsedNode): string => String(builder.build([root])).trim();

/** An element about to be written. */
export type XmlNode = ReturnType<typeof element>;
