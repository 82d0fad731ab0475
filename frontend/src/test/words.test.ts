import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

import ts from "typescript";
import { expect, test } from "vitest";

/** Words that stand for a thing that has another word on screen, each with that word: the table of docs/words.md. */
const INSTEAD: readonly (readonly [RegExp, string])[] = (() => {
  const table = readFileSync("../docs/words.md", "utf8");
  return [...table.matchAll(/^\| ([^|]+?) \| [^|]+ \| ([^|]+?) \|$/gm)]
    .slice(1)
    .flatMap(([, word = "", never = ""]) =>
      never
        .split(", ")
        .filter((w) => w !== "-")
        .map((w) => [new RegExp(`\\b${w}`, "i"), word] as const),
    );
})();

function* sources(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.tsx?$/.test(path) && !/\.test\.|\/test\/|schema\.d/.test(path)) yield path;
  }
}

/** What a file puts on screen: text between tags, and strings that are sentences or begin with a capital. */
function* said(path: string): Generator<string> {
  const file = ts.createSourceFile(
    path,
    readFileSync(path, "utf8"),
    ts.ScriptTarget.Latest,
    true,
    ts.ScriptKind.TSX,
  );
  const found: string[] = [];
  const look = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) || ts.isImportDeclaration(node)) return;
    if (ts.isTypeNode(node)) return;
    const text =
      ts.isJsxText(node) || ts.isStringLiteralLike(node) || ts.isTemplateHead(node)
        ? node.text
        : ts.isTemplateMiddle(node) || ts.isTemplateTail(node)
          ? node.text
          : "";
    if (ts.isJsxText(node) || /^[A-Z].*[a-z]|[a-z] [a-z]/.test(text)) found.push(text);
    ts.forEachChild(node, look);
  };
  look(file);
  yield* found;
}

test("the table of words is read", () => {
  expect(INSTEAD.length).toBeGreaterThan(10);
});

test("one word for one thing, in all that the front end says", () => {
  const wrong: string[] = [];
  for (const path of sources("src"))
    for (const text of said(path))
      for (const [never, word] of INSTEAD)
        if (never.test(text))
          wrong.push(`${path}: "${text.trim()}" says ${never.source}, not ${word}`);
  expect(wrong).toEqual([]);
});
