/**
 * Bodies of earlier releases, brought up to this one. One mechanism for what lies in a browser, in a file and
 * in a save that waits; the database has had its own migrations of the same. Each step has an id that it
 * keeps, needs nothing but the body, and changes nothing that is there: run over a newer body it does
 * nothing.
 */
type Json = Readonly<Record<string, unknown>>
interface Upcast {
  readonly id: string
  readonly up: (body: Json) => Json
}
export type UpcastArea = 'places' | 'frames' | 'plants' | 'stores'

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
const inDesign = (change: (design: Json) => Json) => (body: Json) =>
  isObject(body.design) ? { ...body, design: change(body.design) } : body
const inPattern = (kind: string, more: Json) =>
  inDesign((design) =>
    isObject(design.pattern) && design.pattern.kind === kind
      ? { ...design, pattern: { ...more, ...design.pattern } }
      : design,
  )

/** The conditions that were taken for granted before a place had its own. */
const conditionsOfBefore = {
  soil: 'loam',
  frostDepthM: 0.5,
  coldestC: -15,
  hottestC: 35,
  windMPerS: 22,
  snowPa: 0,
  iceMm: 0,
}

const steps: Readonly<Record<UpcastArea, readonly Upcast[]>> = {
  places: [
    {
      id: 'places/1 AddRiseLinesConditionsPhoto',
      up: (body) => ({
        riseM: 0,
        uprights: null,
        levels: null,
        photo: null,
        conditions: conditionsOfBefore,
        ...body,
      }),
    },
  ],
  frames: [
    {
      id: 'frames/1 AddSnapLightSettingPlant',
      up: inDesign((design) => ({
        snap: 'none',
        light: null,
        setC: 12,
        plantKindId: null,
        repeat: 1,
        ...design,
      })),
    },
    { id: 'frames/2 AddWhereWireEnds', up: inDesign((design) => ({ endsAt: 'any', ...design })) },
    { id: 'frames/3 AddPotOfArch', up: inPattern('arch', { pot: null }) },
    { id: 'frames/4 AddReachOfRibs', up: inPattern('fan', { ribReachM: null }) },
  ],
  plants: [],
  stores: [],
}

/**
 * The body as this release writes it; what is no body at all comes back as it is, for the schema to refuse.
 */
export function upcastBody(area: UpcastArea, body: unknown): unknown {
  return isObject(body) ? steps[area].reduce((now, { up }) => up(now), body) : body
}
