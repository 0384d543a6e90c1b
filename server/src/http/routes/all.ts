import type { Route } from '../route'
import { advisoryRoutes } from './advisory'
import { checkRoutes } from './checks'
import { dayRoutes } from './day'
import { figureRoutes } from './figures'
import { houseRoutes } from './houses'
import { importRoutes } from './imports'
import { listRoutes } from './lists'
import { modelRoutes } from './models'
import { packLinkRoutes } from './pack-links'
import { peopleRoutes } from './people'
import { photoRoutes } from './photos'
import { sessionRoutes } from './session'
import { standardRoutes } from './standards'
import { visitRoutes } from './visits'

/** Every route of the API. */
export const allRoutes: readonly Route[] = [
  ...sessionRoutes,
  ...listRoutes,
  ...visitRoutes,
  ...importRoutes,
  ...modelRoutes,
  ...photoRoutes,
  ...houseRoutes,
  ...checkRoutes,
  ...standardRoutes,
  ...advisoryRoutes,
  ...packLinkRoutes,
  ...figureRoutes,
  ...dayRoutes,
  ...peopleRoutes
]
