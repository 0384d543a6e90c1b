#!/usr/bin/env node
import { load } from '../../scripts/built.mjs'

const { main } = await load('cli/src/main.ts')
process.exitCode = await main(process.argv.slice(2))
