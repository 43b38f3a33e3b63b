/** Sentences about several views of one thing, and curves that two of them show. */
export const SCENE_SENTENCES = {
  'view-id-twice': () => 'Two views have one name here. Give each its own.',
  'feature-id-twice': () => 'Two shared lines or places have one name. Give each its own.',
  'evidence-id-twice': () => 'Two pieces have one name. Give each its own.',
  'feature-not-a-number': () => 'A coordinate of a shared place cannot be read. Type it again.',
  'feature-sigma-not-positive': () => 'The plus-minus of a shared place must be larger than zero.',
  'feature-view-unknown': () => 'A shared line or place is seen in a view that is gone. Point at it in another one.',
  'feature-point-unknown': () => 'A shared line or place stands on a point that is gone. Point at it again.',
  'point-sigma-not-positive': () => 'A point must be known to something more than nothing. Point at it again.',
  'view-edge-unknown': () =>
    'A view stands between two places of which one is gone. Point at both ends of its edge again.',
  'feature-not-shown': () =>
    'A view from that side does not show where along its direction this line lies. Point at it in a view that does.',
  'evidence-feature-unknown': () => 'A size speaks of a shared line or place that is gone. Choose another one.',
  'evidence-features-coincide': () => 'A size needs two different lines or places. Choose another one.',
  'evidence-direction-missing': () =>
    'These two do not share that direction, so no size along it lies between them. Choose two that do.',
  'curve-sides-share-nothing': () =>
    'Two views from opposite sides show the same twice. A curve in space needs two that stand square to each other.',
  'curve-empty': () => 'One of the two has no line yet. Draw it in both views.',
  'curve-nothing-shared': () =>
    'The two curves have nothing in common along the direction that both views show. Check zero in both views.',
  'curve-stretches-differ': () =>
    'One of the two turns back more often than the other along the direction that both views show, so they cannot be one curve. Draw what is missing, or cut what is too much.',
  'curve-steps-in-both': () =>
    'Both curves step at one place, and nothing says which of them goes first. Let one of them step a little later.',
} satisfies Readonly<Record<string, () => string>>;
