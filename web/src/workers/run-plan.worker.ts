import { planOf } from '@pasado/core/agenda/agenda'
import { answering } from './answering'

answering(planOf)
