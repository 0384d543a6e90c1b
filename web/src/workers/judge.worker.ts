import { answering } from './answering'
import { visitJudge } from './judge-visit'

answering(visitJudge())
