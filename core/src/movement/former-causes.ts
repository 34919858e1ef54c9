/**
 * What causes were called before there was one vocabulary of them: some four hundred, most of them used once. Movements of earlier versions
 * are read with today's names; a cause that a studio made up itself stays as it is.
 */
const FORMERLY: Readonly<Record<string, string>> = {
  'set-up/stance-too-narrow':
    'feet-close feet-narrow feet-on-one-line feet-together feet-too-close knees-too-close narrow-split narrow-stance stance-narrow',
  'set-up/stance-too-short': 'foot-near short-split',
  'set-up/feet-too-far': 'feet-far feet-too-far-forward heel-far',
  'set-up/foot-badly-placed':
    'feet-high feet-not-level feet-uneven foot-behind foot-on-edge foot-too-central foot-turned front-foot-turned stance-too-wide toe-only too-much-turn-out weight-on-heels weight-on-toes',
  'set-up/hands-badly-placed':
    'load/shifts elbow-far elbow-high elbow-off grip-loose grip-narrow grip-wide hand-forward hands-clasped hands-forward hands-narrow hands-near hands-too-high hands-uneven held-low thumbs-down',
  'set-up/too-near-or-too-far':
    'knees-too-near off-anchor seat-too-near stands-far stands-too-far too-near too-near-the-wall weight-too-far-forward',
  'set-up/kit-badly-set':
    'badly-packed bench-moves floor-slippery placed-high rope-tight straps-short support-at-foot support-too-low unstable-handle',
  'set-up/wrong-start-position':
    'hips-low legs-straight too-high understanding/hands-too-low understanding/starts-too-low understanding/unsure-of-set-up',
  'set-up/not-braced': 'slack-in-arms understanding/brakes-late understanding/late-brace understanding/relaxes-belly',
  'understanding/hurries':
    'balance/speed-too-high forgets-end only-counts-up races rushes rushes-swap speed-over-control too-fast',
  'understanding/no-clear-picture-yet':
    'strength/not-found-yet chin-rule habit leg-too-low no-picture number-counts old-habit pattern-new too-literal too-low unsure-of-depth works-the-wrong-leg',
  'understanding/mixes-up-two-movements':
    'curls-the-weight forgets-the-hinge front-raise pattern-mix round-first sits-instead-of-squats stands-up stands-up-between steps-instead-of-sinks thinks-chin-up thinks-of-knee thinks-squat',
  'understanding/parts-in-the-wrong-order':
    'arm-leads bends-knees-first braces-early foot-first hips-first hips-rise-first knees-first knees-start late-hinge leans-first legs-first lifts-too-soon moves-in-two-pieces order-unclear reaches-first tucks-early waits-too-long',
  'understanding/rhythm-is-new': 'counts-to-zero loses-count no-signal rhythm-new waits-there',
  'understanding/uses-swing':
    'arms-only bounces jerks-it pulls-with-body swings throws-shoulders uses-body uses-bounce uses-legs uses-thigh uses-turn',
  'understanding/wants-more-range':
    'arches chases-depth forces-range over-finishes overdoes-the-finish range-grows reaches-for-floor reaches-too-far step-too-big sticks-out too-big too-deep too-far touch-at-all-cost tucks wants-depth wants-floor wants-heel wants-more wants-stretch wants-toes',
  'understanding/wants-height': 'height-wanted jumps-too-high jumps-up knee-too-high leg-too-high lifts-leg too-high',
  'understanding/reaches-with-the-wrong-part':
    'arms-forward holds-weight-out measures-with-nose reaches reaches-back reaches-down reaches-out reaches-up reaches-with-back reaches-with-chest reaches-with-weights',
  'understanding/bends-the-back': 'bends-instead-of-tips bends-spine bows no-curl slumps',
  'understanding/does-not-feel-the-position':
    'mobility/loose-knees elbow-target flat-feet narrow no-marker tightrope unaware-of-back unaware-of-elbows unaware-of-hips unaware-of-pelvis walks-a-tightrope',
  'understanding/looks-the-wrong-way':
    'looks-at-feet looks-at-knees looks-at-pad looks-down looks-forward looks-up watches-feet',
  'understanding/tries-too-hard':
    'fatigue/strains braces-with-breath clenches fights grips-hard marches-hard pulls-hard strains too-hard',
  'understanding/lets-go-of-the-tension':
    'arms-let-go drops-over falls-into-step hangs hangs-in-back lets-go lets-lats-go no-control relaxes-fully relaxes-on-box rests-on-hip rests-on-joints rests-on-thighs seeks-rest sits sits-back sits-between-feet steps-down',
  'understanding/wrong-part-does-the-work':
    'carries-in-hands grips-head hands-help hands-pull lifts-from-neck pulls-knees pulls-with-heels pulls-with-neck',
  'understanding/takes-the-easy-way':
    'fatigue/stops-early closes-fully escapes hands-off one-foot-only saves-effort shares-weight splits-weight stops-early uneven-pull uneven-push wants-taps',
  'understanding/forgets': 'fatigue/forgets',
  'understanding/wrong-direction':
    'bar-path foot-stays jumps-forward leans leans-in opens-feet opens-foot pushes-behind pushes-out steps-in steps-round turns-out',
  'understanding/locks-joints': 'locks pushes-through',
  'strength/weak-trunk': 'weak-deep-trunk weak-middle',
  'strength/weak-front-of-the-trunk': 'weak-abs',
  'strength/weak-sides-of-the-trunk': 'weak-waist',
  'strength/weak-outer-hips': 'weak-hips',
  'strength/weak-thighs': 'thighs-tire weak-front-leg weak-quads weak-top-leg',
  'strength/weak-calves-or-ankles': 'weak-ankles weak-calf weak-calves',
  'strength/weak-around-the-shoulder-blades': 'weak-blades weak-shoulder-blades',
  'strength/weak-shoulders': 'weak-turners',
  'strength/weak-upper-back': 'weak-lats weak-mid-back',
  'strength/weak-chest-or-arms': 'weak-chest weak-push weak-triceps',
  'strength/weak-grip-or-wrists': 'weak-fingers weak-forearms weak-grip weak-outer-hand weak-wrists',
  'strength/weak-at-lowering': 'no-brake no-control-low weak-brakes weak-lowering',
  'strength/weak-at-the-bottom': 'weak-low-range weak-out-of-the-bottom weak-start',
  'strength/one-side-weaker': 'weaker-leg weaker-side',
  'strength/not-ready': 'box-too-high legs-not-ready not-there-yet',
  'strength/weak-glutes-or-hamstrings': 'weak-back-chain weak-glutes weak-hamstrings weak-hinge weak-seat',
  'mobility/stiff-ankles': 'tight-calves',
  'mobility/stiff-hips': 'tight-hips tight-inner-thighs',
  'mobility/tight-front-of-hips': 'stiff-hip-front tight-hip-flexors tight-quads',
  'mobility/stiff-upper-back': 'stiff-side',
  'mobility/stiff-shoulders': 'tight-chest',
  'balance/unsteady':
    'ankle-sway drifts finding-place loses-it no-support no-tension one-side seeks-support sways swinging-load tips-forward unsure weight-between',
  'balance/base-too-narrow': 'crosses-over feet-stacked narrow narrow-path one-line small-steps',
  'balance/eyes-wander': 'eyes-follow',
  'balance/two-things-at-once': 'leads-with-one two-things',
  'fatigue/late-in-set':
    'empties-out hurries last-seconds late late-reps long-hold near-the-end recovers-slowly seeks-floor seeks-rest tires too-many',
  'fatigue/legs-tire': 'calves-tire legs-empty outer-hips-tire seat-tires thighs-tire tired-legs tired-thighs',
  'fatigue/arms-tire': 'arm-tires',
  'fatigue/trunk-tires': 'back-tires belly-lets-go tired-back upper-back-tires',
  'fatigue/grip-tires': 'forearms-tire grip-gone',
  'fatigue/loses-attention': 'loses-beat loses-care loses-place loses-track',
  'load/too-heavy': 'pushed',
  'load/lever-too-long': 'too-low',
  'load/too-light': 'empty-hand',
};

const TODAY = new Map(
  Object.entries(FORMERLY).flatMap(([cause, names]) => {
    const [kind = ''] = cause.split('/');
    return names.split(' ').map((name) => [name.includes('/') ? name : `${kind}/${name}`, cause] as const);
  }),
);

/** Causes by today's names, each once. */
export const causesToday = (causes: readonly string[]): string[] => [
  ...new Set(causes.map((cause) => TODAY.get(cause) ?? cause)),
];
