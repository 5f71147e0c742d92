/** Forms that the run has computed before, in whatever test: all of the demo shop's, to begin with. */
import path from 'node:path'
import { buildOf, formsFolder, keepFormsIn } from '../src/forms/form-files'

const { FORMS } = process.env
if (FORMS) keepFormsIn(formsFolder(FORMS, buildOf(path.join(__dirname, '../dist/worker.js'))))
