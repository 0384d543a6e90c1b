import type { Route } from '../route'
import { advisoryRoutes } from './advisory'
import { catalogueRoutes } from './catalogue'
import { checksRoutes } from './checks'
import { dayRoutes } from './day'
import { figuresRoutes } from './figures'
import { homesRoutes } from './homes'
import { housesRoutes } from './houses'
import { keysRoutes } from './keys'
import { outboxesRoutes } from './outboxes'
import { packLinksRoutes } from './pack-links'
import { peopleRoutes } from './people'
import { photosRoutes } from './photos'
import { sessionRoutes } from './session'
import { standardsRoutes } from './standards'
import { visitsRoutes } from './visits'

/** Every route of the API. */
export const allRoutes: readonly Route[] = [
  ...peopleRoutes,
  ...dayRoutes,
  ...catalogueRoutes,
  ...homesRoutes,
  ...keysRoutes,
  ...sessionRoutes,
  ...standardsRoutes,
  ...visitsRoutes,
  ...outboxesRoutes,
  ...packLinksRoutes,
  ...photosRoutes,
  ...housesRoutes,
  ...figuresRoutes,
  ...advisoryRoutes,
  ...checksRoutes
]
