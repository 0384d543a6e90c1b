#!/usr/bin/env node
import { built } from '../../scripts/built.mjs'

// What a fault says names the sources.
process.setSourceMapsEnabled(true)
const { main } = await import(await built('cli/src/main.ts'))
process.exitCode = await main(process.argv.slice(2))
