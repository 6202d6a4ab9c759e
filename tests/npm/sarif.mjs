// Our SARIF reports keep to the standard's own schema, and a report with a key too many or without a part that is wanted
// does not. Arguments: the command that makes a report, then the files of worlds.
import Ajv from 'ajv-draft-04'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { spawnSync } from 'node:child_process'

const [command, ...worlds] = process.argv.slice(2)
const schema = createRequire(import.meta.url).resolve('@microsoft/jest-sarif/lib/schemas/sarif-2.1.0-rtm.5.json')
const validate = new Ajv({ allErrors: true, strict: false, validateFormats: false, unicodeRegExp: false }).compile(JSON.parse(readFileSync(schema, 'utf8')))

let faults = 0, results = 0
const complain = text => { console.error(text); ++faults }

for (const world of worlds) {
  const report = JSON.parse(spawnSync(command, ['check', world, '--format', 'sarif'], { encoding: 'utf8' }).stdout)
  if (!validate(report)) complain(`${world}: ${JSON.stringify(validate.errors, null, 1)}`)
  const run = report.runs[0]
  results += run.results.length
  for (const result of run.results) {
    if (run.tool.driver.rules[result.ruleIndex]?.id !== result.ruleId) complain(`${world}: rule ${result.ruleId} is not at its index`)
    result.noSuchKey = 1
    if (validate(report)) complain(`${world}: a key that nobody knows in a result was not noticed`)
    delete result.noSuchKey
    const { message } = result
    delete result.message
    if (validate(report)) complain(`${world}: a missing message was not noticed`)
    result.message = message
  }
}
console.log(`${worlds.length} reports with ${results} results are good`)
if (results === 0) complain('there were no results')
process.exit(faults > 0 ? 1 : 0)
