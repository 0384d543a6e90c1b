import { suggestPlaces, type SuggestInput } from '@pasado/core/plan/suggest'

addEventListener('message', (event: MessageEvent<SuggestInput>) => postMessage(suggestPlaces(event.data)))
