import { suggestPlaces, type SuggestInput } from '@pasado/core/work/plan/suggest'
import { answering } from './answering'

answering((input: SuggestInput) => suggestPlaces(input))
