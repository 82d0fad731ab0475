// @vitest-environment node
import { readFileSync, readdirSync } from "node:fs";
import { join, resolve } from "node:path";

import ts from "typescript";
import { expect, test } from "vitest";

const SRC = resolve(import.meta.dirname, "..");
const SCHEMA = join(SRC, "api/schema.d.ts");
/** What is not a view but reads reports too: the command, the bench's summaries, inferences, and the order list. */
const READERS = [
  "cli.py",
  "api/serializers.py",
  "api/readings.py",
  "records/reports.py",
  "records/summaries.py",
  "core/stock/need.py",
  "core/stock/order.py",
  "records/buying.py",
].map((p) => resolve(SRC, "../../swapglow", p));

function files(at: string, suffix: RegExp): string[] {
  if (suffix.test(at)) return [at];
  return readdirSync(at, { recursive: true, encoding: "utf8" })
    .filter((name) => suffix.test(name))
    .map((name) => join(at, name));
}

/** The sources of the app, without tests. */
function sources() {
  return files(SRC, /\.tsx?$/).filter((name) => !/\.test\.tsx?$|\/test\//.test(name));
}

const OPTIONS: ts.CompilerOptions = {
  strict: true,
  jsx: ts.JsxEmit.ReactJSX,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  target: ts.ScriptTarget.ESNext,
  skipLibCheck: true,
};

/** The description, and the places in it of every field that the app names: found in one pass over the program. */
function described() {
  const program = ts.createProgram(sources(), OPTIONS);
  const checker = program.getTypeChecker();
  const schema = program.getSourceFile(SCHEMA);
  if (!schema) throw new Error("the description is not found");
  const named = new Set<number>();
  const mark = (symbol: ts.Symbol | undefined) => {
    for (const d of symbol?.declarations ?? []) {
      if (d.getSourceFile() === schema && ts.isPropertySignature(d)) named.add(d.name.getStart());
    }
  };
  const visit = (node: ts.Node) => {
    if (ts.isPropertyAccessExpression(node)) mark(checker.getSymbolAtLocation(node.name));
    else if (ts.isBindingElement(node) && ts.isObjectBindingPattern(node.parent)) {
      const field = (node.propertyName ?? node.name).getText();
      mark(checker.getTypeAtLocation(node.parent).getProperty(field));
    } else if (ts.isIndexedAccessTypeNode(node) && ts.isLiteralTypeNode(node.indexType)) {
      const field = node.indexType.getText().slice(1, -1);
      mark(checker.getTypeFromTypeNode(node.objectType).getProperty(field));
    } else if (ts.isPropertyAssignment(node) || ts.isShorthandPropertyAssignment(node)) {
      mark(checker.getContextualType(node.parent)?.getProperty(node.name.getText()));
    }
    ts.forEachChild(node, visit);
  };
  for (const file of program.getSourceFiles()) {
    if (file !== schema && !file.isDeclarationFile) visit(file);
  }
  return { schema, named };
}

let found: ReturnType<typeof described> | undefined;

/** The shapes in the description, each with its fields and the shapes it is made of. */
function shapes(source: ts.SourceFile) {
  const found = new Map<string, { field: string; at: number; made: string[] }[]>();
  const visit = (node: ts.Node) => {
    if (ts.isPropertySignature(node) && node.type && ts.isTypeLiteralNode(node.type)) {
      found.set(
        node.name.getText(source),
        node.type.members.filter(ts.isPropertySignature).map((m) => ({
          field: m.name.getText(source),
          at: m.name.getStart(source),
          made: [...m.getText(source).matchAll(/\["schemas"\]\["(\w+)"\]/g)].map((x) => x[1] ?? ""),
        })),
      );
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Fields that nobody reads, of a shape and all shapes in it. */
function unread(roots: string[], byName: boolean) {
  const { schema, named } = (found ??= described());
  const all = shapes(schema);
  const python = READERS.flatMap((at) => files(at, /\.py$/)).map((n) => readFileSync(n, "utf8"));
  const views = sources()
    .filter((n) => n !== SCHEMA)
    .map((n) => readFileSync(n, "utf8"));
  const out: string[] = [];
  const seen = new Set<string>();
  const todo = [...roots];
  for (let name = todo.pop(); name !== undefined; name = todo.pop()) {
    // Inputs are shown by the field kit, which reads a field by its name.
    if (seen.has(name) || /(Input|Answer)$/.test(name)) continue;
    seen.add(name);
    for (const { field, at, made } of all.get(name) ?? []) {
      todo.push(...made);
      const read =
        named.has(at) ||
        python.some((text) => new RegExp(`\\.${field}\\b`).test(text)) ||
        (byName && views.some((text) => text.includes(`"${field}"`)));
      if (!read) out.push(`${name}.${field}`);
    }
  }
  return { fields: out, shapes: seen.size };
}

test("every field of the report is read by a view, a command or an export", () => {
  const found = unread(["Report", "Dimming", "MatchReport"], false);
  expect(found.shapes).toBeGreaterThan(25);
  expect(found.fields).toEqual([]);
});

test("every field of a list is read, or asked for by its name", () => {
  const roots = [
    "BenchOut",
    "DrawerOut",
    "BuyingOut",
    "MadeOut",
    "MarksOut",
    "MarkWritten",
    "DayOut",
    "FindOut",
    "DrawnOut",
    "EquipmentOut",
    "Swaps",
    "SweepReport",
    "Intent",
    "LedsOut",
    "RowOfLamps",
    "TwoSeen",
    "StreakSeen",
  ];
  expect(unread(roots, true).fields).toEqual([]);
});
