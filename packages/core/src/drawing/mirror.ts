/** A piece as a left-handed stitcher makes it: the mirror image of the one that a right-handed stitcher makes. */
import type { Vector } from '../form/vector'
import type { Scene, SceneStone } from './scene'

export const hands = ['right', 'left'] as const
export type Hand = (typeof hands)[number]

/** Forms are computed as a right-handed stitcher makes them. */
export const sceneFor = (hand: Hand, scene: Scene): Scene => (hand === 'left' ? mirroredScene(scene) : scene)

/** Everything to the right lies to the left. The same scene again when it is done twice. */
export const mirroredScene = (scene: Scene): Scene => ({
  ...scene,
  ...mirroredPoses(scene),
  stones: scene.stones.map(mirroredStone),
  rings: scene.rings.map((ring) => ({ ...ring, middle: mirrored(ring.middle) })),
})

/** Where beads and thread lie, alone. */
export function mirroredPoses({ poses, thread }: Pick<Scene, 'poses' | 'thread'>): Pick<Scene, 'poses' | 'thread'> {
  const flip = (of: Float32Array) => of.map((value, i) => (i % 3 === 0 ? -value : value))
  return { poses: flip(poses), thread: flip(thread) }
}

const mirrored = ([x, y, z]: Vector): Vector => [-x, y, z]

/** Its outline is mirrored as well, so that its own axes stay right-handed; and turned round, so that it runs the same way. */
function mirroredStone(stone: SceneStone): SceneStone {
  const [x, y, z] = stone.right
  return {
    ...stone,
    middle: mirrored(stone.middle),
    right: [x, -y, -z],
    front: mirrored(stone.front),
    outline: stone.outline.map(([across, up]) => [-across, up] as const).reverse(),
  }
}
