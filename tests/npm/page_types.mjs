// The modules of pages, checked as TypeScript checks JavaScript: names that are not there, wrong arguments, what may be
// null, what nobody uses. And how they stand to each other: none imports one that imports it, however far off, and what
// is exported is imported somewhere.
//   node page_types.mjs PROJECT
import { basename, join, relative } from "node:path";
import ts from "typescript";

const project = process.argv[2];
const folder = join(project, "src/draw/page");
const options = {
  allowJs: true, checkJs: true, noEmit: true, types: [], target: ts.ScriptTarget.ES2022,
  lib: ["lib.es2022.d.ts", "lib.dom.d.ts", "lib.dom.iterable.d.ts"],
  module: ts.ModuleKind.ES2022, moduleResolution: ts.ModuleResolutionKind.Node10,
  noUnusedLocals: true, noUnusedParameters: true, noFallthroughCasesInSwitch: true,
};
let faults = 0;
const tell = fault => (console.error(fault), ++faults);

/** @type {Map<string, { imports: Map<string, string[]>, exports: string[] }>} */
const modules = new Map();
function enter(file) {
  const imports = new Map(), exports = [];
  for (const statement of file.statements) {
    if (ts.isImportDeclaration(statement))
      imports.set(basename(statement.moduleSpecifier.text), (statement.importClause?.namedBindings.elements ?? []).map(one => one.name.text));
    else if (statement.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword))
      exports.push(...(statement.declarationList?.declarations ?? [statement]).map(one => one.name.text));
  }
  modules.set(basename(file.fileName), { imports, exports });
}

for (const start of ["main.js", "tiles.js"]) {   // and all that they import
  const files = [join(project, "tests/npm/page_globals.d.ts"), join(folder, start)];
  const program = ts.createProgram(files, options);
  for (const fault of ts.getPreEmitDiagnostics(program)) {
    const at = fault.file?.getLineAndCharacterOfPosition(fault.start);
    const place = fault.file ? `${relative(project, fault.file.fileName)}:${at.line + 1}:${at.character + 1}: ` : "";
    tell(place + ts.flattenDiagnosticMessageText(fault.messageText, "\n"));
  }
  for (const file of program.getSourceFiles()) if (file.fileName.startsWith(folder)) enter(file);
}

function round(name, way) {
  if (way.includes(name)) return tell(`import each other: ${[...way.slice(way.indexOf(name)), name].join(" -> ")}`);
  for (const other of modules.get(name).imports.keys()) if (round(other, [...way, name])) return true;
  return false;
}
for (const name of modules.keys()) if (round(name, [])) break;
for (const [name, { exports }] of modules)
  for (const one of exports)
    if (![...modules.values()].some(({ imports }) => imports.get(name)?.includes(one))) tell(`${name}: nobody imports '${one}'`);

console.log(`${modules.size} modules of pages: ${faults} faults`);
process.exit(faults === 0 ? 0 : 1);
