// Our glTF by a validator that is not ours: `node gltf.mjs TOOL WORLD...`. Each world's maps upright and flat, with and
// without triggers, facing in and out. Prints what the validator finds, of any severity; exit code 1 when that is anything.

import { execFileSync } from "node:child_process";
import validator from "gltf-validator";

const [tool, ...worlds] = process.argv.slice(2);
let failures = 0, files = 0;
for (const world of worlds)
  for (const words of [[], ["--plane", "ground"], ["--plane", "ground", "--triggers", "--height", "24"], ["--inward"]]) {
    const bytes = execFileSync(tool, ["merge", world, "--format", "gltf", ...words], { stdio: ["ignore", "pipe", "ignore"] });
    const report = await validator.validateBytes(new Uint8Array(bytes));
    ++files;
    for (const message of report.issues.messages) {
      ++failures;
      console.log(`${world} ${words.join(" ")}: ${message.pointer}: ${message.message} [${message.code}]`);
    }
  }
console.log(`gltf: ${files} files, ${failures} findings`);
process.exit(failures > 0 || files === 0 ? 1 : 0);
