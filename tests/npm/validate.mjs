// Designers' files keep to the schemas that editors complete and check them with; and a key too many, a type that is
// wrong or a form too many is noticed. Arguments: the source folder, then files, and folders in which every .toml file, that must be good.
import Ajv from 'ajv'
import { parse } from 'smol-toml'
import { readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

const [source, ...places] = process.argv.slice(2)
const read = name => JSON.parse(readFileSync(join(source, 'schema', name), 'utf8'))
// Each schema, by itself, as strict as a validator can be.
for (const name of readdirSync(join(source, 'schema'))) {
  const strict = new Ajv({ strict: true, strictRequired: true })
  if (name !== 'merge.schema.json') strict.addSchema(read('merge.schema.json'), 'merge.schema.json')
  strict.compile(read(name))
}
const ajv = new Ajv({ allErrors: true, strict: true, strictRequired: true })
const schemas = Object.fromEntries(['world', 'tiles', 'map'].map(sort => {
  return [`dryground/${sort}/1`, ajv.compile(read(`${sort}.schema.json`))]
}))

let faults = 0
const complain = text => { console.error(text); ++faults }

function filesIn(place) {
  if (!statSync(place).isDirectory()) return place.endsWith('.toml') ? [place] : []
  return readdirSync(place).flatMap(name => filesIn(join(place, name)))
}

// Every table that is not free to hold any name gets a key that nobody knows.
function* withOneKeyTooMany(value, path = '') {
  if (Array.isArray(value)) {
    for (let i = 0; i < value.length; ++i) yield* withOneKeyTooMany(value[i], `${path}/${i}`)
  } else if (value !== null && typeof value === 'object' && !(value instanceof Date)) {
    const free = /(^|\/)(props|legend)$/.test(path) || /\/(of|default)$/.test(path)
    if (!free) {
      value['No Such Key'] = 1
      yield path
      delete value['No Such Key']
    }
    for (const key of Object.keys(value)) yield* withOneKeyTooMany(value[key], `${path}/${key}`)
  }
}

let files = 0, mutations = 0
for (const place of places) {
  for (const file of filesIn(place)) {
    const tree = parse(readFileSync(file, 'utf8'))
    const validate = schemas[tree.format]
    ++files
    if (!validate(tree)) complain(`${file}: ${ajv.errorsText(validate.errors, { separator: '\n  ' })}`)
    for (const path of withOneKeyTooMany(tree)) {
      ++mutations
      if (validate(tree)) complain(`${file}: a key that nobody knows in ${path || 'the file'} was not noticed`)
    }
    const format = tree.format
    delete tree.format
    if (validate(tree)) complain(`${file}: a missing format was not noticed`)
    tree.format = format.replace('/1', '/2')
    if (validate(tree)) complain(`${file}: a newer format was not noticed`)
  }
}
console.log(`${files} files are good, ${mutations} keys too many were noticed`)
if (files === 0) complain('there were no files')
process.exit(faults > 0 ? 1 : 0)
