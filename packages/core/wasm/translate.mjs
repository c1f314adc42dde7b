/**
 * Translates a file of the engine from TypeScript to AssemblyScript, on its syntax tree. Lines stay where they are, so
 * that what the compiler says of a line is true of the source.
 */
import MagicString from 'magic-string';
import { parseSync } from 'vite';

/** Arrays of fixed size lie where their reference points: one load less for each number. */
const STATIC_ARRAYS = new Map([
  ['Float64Array', 'StaticArray<f64>'],
  ['Float32Array', 'StaticArray<f32>'],
  ['Int32Array', 'StaticArray<i32>'],
]);

/** What the subset of the engine leaves out, by the kind of node. */
const NOT_IN_SUBSET = {
  ArrowFunctionExpression: 'a closure',
  FunctionExpression: 'a closure',
  ObjectPattern: 'destructuring',
  ArrayPattern: 'destructuring',
  ObjectExpression: 'an object without a class',
  SpreadElement: 'a spread',
  RestElement: 'a rest parameter',
  TSUnionType: 'a union',
  TSNonNullExpression: 'an assertion that something is there',
  ChainExpression: 'an optional chain',
  ForOfStatement: 'for of',
  ForInStatement: 'for in',
  TemplateLiteral: 'a template',
  TryStatement: 'try',
  ThrowStatement: 'throw',
  YieldExpression: 'yield',
  AwaitExpression: 'await',
};

/** An engine file that AssemblyScript would not take, or would take otherwise than TypeScript does. */
export class TranslationError extends Error {
  constructor(file, source, offset, message) {
    const before = source.slice(0, offset).split('\n');
    super(`${file}:${before.length}:${before.at(-1).length + 1} ${message}`);
    this.name = 'TranslationError';
  }
}

/**
 * Names of the class fields of modules that hold 32-bit numbers, which AssemblyScript would calculate with as such.
 * @param sources text of each module by its name
 */
export function singleFields(sources) {
  const names = new Set();
  for (const [file, source] of Object.entries(sources)) {
    visit(parseSync(file, source, { lang: 'ts' }).program, null, (node) => {
      if (node.type === 'PropertyDefinition' && arrayType(node) === 'Float32Array') names.add(node.key.name);
    });
  }
  return names;
}

/**
 * @param file name for messages  @param fields see `singleFields`
 * @returns the same module in AssemblyScript, line by line
 * @throws {TranslationError} a syntax error, or something outside of the subset, by file, line and column
 */
export function translate(file, source, fields = singleFields({ [file]: source })) {
  const { program, comments, errors } = parseSync(file, source, { lang: 'ts' });
  const fail = (node, message) => {
    throw new TranslationError(file, source, node.start, message);
  };
  if (errors.length > 0) fail(errors[0].labels[0], errors[0].message);
  const text = new MagicString(source);
  // Loops are written out on one line, where a line comment would swallow what follows.
  for (const { start, end } of comments) blank(text, source, start, end);
  const singles = singleArrays(program, fields);
  const isInlined = (node) =>
    comments.some(({ end, value }) => {
      const between = source.slice(end, node.start);
      return value.includes('@inline') && /^\s*(export\s+)?$/.test(between) && end <= node.start;
    });
  visit(program, null, (node, parent) => {
    const outside = NOT_IN_SUBSET[node.type];
    if (outside && parent.type !== 'MethodDefinition')
      fail(node, `${outside} is not in the engine's subset of TypeScript`);
    const array = arrayType(node);
    if (array && array !== 'Float32Array' && singles.has(node.name ?? node.key.name)) {
      fail(node, 'this name is taken by an array of 32-bit numbers');
    }
    if (node.type === 'ImportDeclaration') translateImport(text, source, node);
    else if (node.type === 'Identifier' && STATIC_ARRAYS.has(node.name)) {
      text.overwrite(node.start, node.end, STATIC_ARRAYS.get(node.name));
    } else if (node.type === 'MemberExpression' && node.computed && singles.has(nameOf(node.object))) {
      if (parent.type === 'AssignmentExpression' && parent.left === node) {
        if (parent.operator !== '=') fail(parent, 'a 32-bit number is assigned to with = only');
        text.appendLeft(parent.right.start, 'f32(').appendRight(parent.right.end, ')');
      } else text.appendLeft(node.start, 'f64(').appendRight(node.end, ')');
    } else if (node.type === 'ForStatement') unroll(text, source, node);
    else if (node.type === 'FunctionDeclaration' && isInlined(node))
      text.appendLeft(startOf(node, parent), '@inline ');
  });
  return text.toString();
}

/** Calls `leave` for each node, those within a node before the node itself. */
function visit(node, parent, leave) {
  for (const value of Object.values(node)) {
    for (const child of Array.isArray(value) ? value : [value]) {
      if (child && typeof child.type === 'string') visit(child, node, leave);
    }
  }
  leave(node, parent);
}

/** Where a function starts, with the word that exports it. */
const startOf = (node, parent) => (parent.type === 'ExportNamedDeclaration' ? parent.start : node.start);

/** Removes text but for its line breaks. */
function blank(text, source, start, end) {
  const breaks = source.slice(start, end).replace(/[^\n]/g, '');
  if (breaks) text.overwrite(start, end, breaks);
  else text.remove(start, end);
}

/** AssemblyScript has i32 built in, knows no imports of types alone, and resolves modules without an ending. */
function translateImport(text, source, node) {
  const names = node.specifiers.map(({ imported, local }) =>
    imported.name === local.name ? local.name : `${imported.name} as ${local.name}`,
  );
  const kept = names.filter((name) => name !== 'i32');
  const breaks = source.slice(node.start, node.end).replace(/[^\n]/g, '');
  const from = node.source.value.replace(/\.js$/, '');
  const line = kept.length > 0 ? `import { ${kept.join(', ')} } from '${from}';` : '';
  text.overwrite(node.start, node.end, line + breaks);
}

/** Fields, and parameters and variables of a module, that hold 32-bit numbers: read and written as 64-bit ones. */
function singleArrays(program, fields) {
  const names = new Set(fields);
  visit(program, null, (node) => {
    if (arrayType(node) === 'Float32Array') names.add(node.name ?? node.key.name);
    if (node.type === 'VariableDeclarator' && names.has(nameOf(node.init))) names.add(node.id.name);
  });
  return names;
}

/** The kind of typed array that a field, a parameter or a variable is declared to be. */
function arrayType(node) {
  const name = node.typeAnnotation?.typeAnnotation?.typeName?.name;
  return STATIC_ARRAYS.has(name) ? name : undefined;
}

/** Last name of `a`, `t.a` or `this.t.a`. */
function nameOf(node) {
  if (node?.type === 'MemberExpression' && !node.computed) return node.property.name;
  return node?.type === 'Identifier' ? node.name : null;
}

/** Loops over three axes or colours are written out three times: the compiler would count. */
function unroll(text, source, { init, test, update, body, start, end }) {
  const counter = init?.declarations?.[0];
  const counts =
    counter?.init?.value === 0 &&
    test?.operator === '<' &&
    test.left.name === counter.id.name &&
    test.right.value === 3 &&
    update?.operator === '++' &&
    update.argument.name === counter.id.name;
  if (!counts || jumps(body)) return;
  const written = text.slice(body.start, body.end);
  const line = written.replace(/\s*\n\s*/g, ' ');
  const name = counter.id.name;
  const round = (value, statement) => `{ const ${name}: i32 = ${value}; ${statement} }`;
  const before = source.slice(start, body.start).replace(/[^\n]/g, '');
  text.overwrite(start, end, `${before}{ ${round(0, written)} ${round(1, line)} ${round(2, line)} }`);
}

/** Whether a loop's body leaves it early or goes on early. */
function jumps(body) {
  let found = false;
  visit(body, null, ({ type }) => {
    if (type === 'BreakStatement' || type === 'ContinueStatement') found = true;
  });
  return found;
}
