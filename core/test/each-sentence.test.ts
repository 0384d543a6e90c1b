import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript'
import { expect, it } from 'vitest'

/* That what is said in each case (said.test.ts) holds every sentence that stands in a rule. It reads the files of the rules, so no faults are put into them for it. */
const stageFiles = join(import.meta.dirname, '../src/rules/stages')
const saidFiles = join(import.meta.dirname, 'fixtures/said')

/** What the rules of the stages say, as it stands in their files, without what is put into it. */
function writtenIn(file: string): string[] {
  const found: string[] = []
  const look = (part: ts.Node): void => {
    if (ts.isPropertyAssignment(part) && ['statement', 'name', 'id', 'asks'].includes(part.name.getText())) return
    if (ts.isStringLiteralLike(part) || ts.isTemplateHead(part) || ts.isTemplateMiddleOrTemplateTail(part))
      found.push(part.text)
    ts.forEachChild(part, look)
  }
  look(ts.createSourceFile(file, readFileSync(join(stageFiles, file), 'utf8'), ts.ScriptTarget.Latest, true))
  // A sentence, or two words of one: keys and file names are neither.
  return found
    .map((text) => text.trim())
    .filter((text) => text.length > 7 && /[a-z].* .*[a-z]|^[A-Z][a-z]+.*[.]$/.test(text))
}

/** What no model, no figure of the demo and of the first standard brings a rule to say. */
const elsewhereTried = new Set([
  'Take an address inside the pool, as the standard’s school asks.',
  'Change it.',
  'Lead it to where the home’s network comes from.',
  'Ask the lead which version to install.',
  'any number of',
  'Wait and look again: what comes next decides.',
  '. Whether that is well here depends on its role, which is not recorded.',
  'the router’s name with a suffix'
])

it('every sentence of every rule is said in some case', () => {
  const all = readdirSync(saidFiles)
    .map((file) => readFileSync(join(saidFiles, file), 'utf8'))
    .join('\n')
  const never = readdirSync(stageFiles).flatMap((file) => writtenIn(file).filter((text) => !all.includes(text)))
  expect(new Set(never)).toEqual(elsewhereTried)
})
