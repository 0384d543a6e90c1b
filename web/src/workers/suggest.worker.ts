import { suggestPlaces, type SuggestInput } from '@pasado/core/work/plan/suggest'

addEventListener('message', (event: MessageEvent<SuggestInput>) => postMessage(suggestPlaces(event.data)))
