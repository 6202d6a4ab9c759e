// The scripts of pages, checked as TypeScript checks JavaScript: names that are not there, wrong arguments, what may be
// null, what nobody uses.
//   node page_types.mjs PROJECT
import { readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";

const project = process.argv[2];
const folder = join(project, "src/draw/page");
const options = {
  allowJs: true, checkJs: true, noEmit: true, types: [], target: ts.ScriptTarget.ES2022,
  lib: ["lib.es2022.d.ts", "lib.dom.d.ts", "lib.dom.iterable.d.ts"],
  noUnusedLocals: true, noUnusedParameters: true, noFallthroughCasesInSwitch: true,
};
// The order of the parts of a page is said where they are put together.
const order = /set\(page_scripts ([^)]*)\)/.exec(readFileSync(join(project, "src/CMakeLists.txt"), "utf8"))[1].split(/\s+/);

let faults = 0, checked = 0;
for (const scripts of [order, ["tiles.js"]]) {
  const files = [join(project, "tests/npm/page_globals.d.ts"), ...scripts.map(script => join(folder, script))];
  const program = ts.createProgram(files, options);
  for (const fault of ts.getPreEmitDiagnostics(program)) {
    const at = fault.file?.getLineAndCharacterOfPosition(fault.start);
    const place = fault.file ? `${relative(project, fault.file.fileName)}:${at.line + 1}:${at.character + 1}: ` : "";
    console.error(place + ts.flattenDiagnosticMessageText(fault.messageText, "\n"));
    ++faults;
  }
  checked += scripts.length;
}
console.log(`${checked} scripts of pages: ${faults} faults`);
process.exit(faults === 0 ? 0 : 1);
