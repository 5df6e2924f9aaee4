import type { AnchorId, LineId, MemberId, NodeId } from '../frame/index.ts'
import { above, choice, noneOr, number, flag, part, point, uuid, v1, whole } from '../shape/index.ts'

const frameId = uuid
const metres = number(0, 20)
const tension = v1({
  frameId,
  line: part<LineId>(),
  tensionN: above(0, 100_000),
  temperatureC: number(-60, 80),
})

/** What is done to a frame, from the first mark to the cover. */
export const frameEntries = {
  /** A fixing of a frame is in the wall, where it really went. */
  'fixing.set': v1({ frameId, nodeId: part<NodeId>(), at: point }),
  'post.placed': v1({ frameId, postId: part<MemberId>(), xM: number(-100, 1100) }),
  /** A ground screw as it went in; angle from the vertical. A refused one did not reach its depth. */
  'anchor.driven': v1({
    frameId,
    anchorId: part<AnchorId>(),
    depthM: metres,
    angleDeg: number(0, 80),
    torqueNm: noneOr(number(0, 20_000)),
    reworks: whole(0, 50),
    isRefused: flag,
    movedM: number(0, 100),
    pullTestN: noneOr(number(0, 1e6)),
  }),
  'wire.tensioned': tension,
  'wire.measured': tension,
  /** A pair of foliage wires taken to another height above the ground. */
  'wire.lifted': v1({ frameId, line: part<LineId>(), toHeightM: metres }),
  'cover.changed': v1({ frameId, is: choice('on', 'off') }),
} as const
