/** That no row fits, looked up by key for each row that asks: as NOT EXISTS the database may gather a whole table first. */
const none = (from: string): string => `(SELECT 1 FROM ${from} LIMIT 1) IS NULL`

const sealedAtHome = (v: string) =>
  `visits s FORCE INDEX (by_home) WHERE s.home_id = ${v}.home_id AND s.sealed_at IS NOT NULL`
/** A visit that was sealed later; what came as a file comes before all of ours. */
const sealedLater = (v: string) =>
  `${sealedAtHome(v)} AND (s.is_foreign < ${v}.is_foreign OR (s.is_foreign = ${v}.is_foreign AND (s.sealed_at > ${v}.sealed_at OR (s.sealed_at = ${v}.sealed_at AND s.id > ${v}.id))))`

/**
 * Which rows of `units` tell what stands at a home now: those of its last sealed visit, and of every visit that is open
 * there, each unit as the visit that was opened last knows it. A visit that was only booked takes nothing away: a home is
 * never forgotten because somebody is to go there.
 * @param u how the row of `units` is called, and `v` that of its visit, which whoever asks joins
 */
export const standsNow = (u: string, v: string): string => `(${v}.sealed_at IS NULL OR ${none(sealedLater(v))})
  AND ${none(`visits n FORCE INDEX (by_home) JOIN units nu FORCE INDEX (PRIMARY) ON nu.visit_id = n.id AND nu.unit_id = ${u}.unit_id
    WHERE n.home_id = ${v}.home_id AND n.is_foreign <= ${v}.is_foreign AND (n.opened_at > ${v}.opened_at OR (n.opened_at = ${v}.opened_at AND n.id > ${v}.id)) AND (n.sealed_at IS NULL OR ${v}.sealed_at IS NULL OR n.sealed_at > ${v}.sealed_at)`)}`

/** The same, of the rows that are called so in most queries. */
export const STANDS_NOW = standsNow('u', 'v')

/** Whether a visit `v` is the one that a home `h` is judged by: its last sealed one, or where none is sealed, its latest. */
export const JUDGED_BY = `((v.sealed_at IS NOT NULL AND ${none(sealedLater('v'))}) OR (v.id = h.latest_visit AND v.cancelled_at IS NULL AND ${none(sealedAtHome('v'))}))`
