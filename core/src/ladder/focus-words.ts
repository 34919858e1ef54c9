/** Whether a cue has the focus that it says: inward is about a part of the body or its posture, outward about a thing, a place or an effect. */

const BODY =
  'abs|ankles?|arms?|armpits?|belly|body|bones?|bottom|breastbone|calf|calves|cheeks?|chest|chin|collarbones?|crown|ears?|elbows?|eyes?|feet|fingers?|fingertips|fists?|foot|forearms?|forehead|glutes?|hamstrings?|hands?|head|heels?|hips?|jaw|kneecaps?|knees?|knuckles|legs?|mouth|muscles?|navel|neck|palms?|pelvis|ribs?|shins?|shoulders?|shoulder blades?|sides?|spine|soles?|stomach|tail|tailbone|thighs?|throat|thumbs?|toes?|torso|trunk|waist|wrists?';
/** The whole body, its posture and its breath: nothing outside of it either. */
const POSTURE =
  'air|back|bend|bent|blades?|breaths?|breathe|curl|face|firm|front|lean|light|long|lying|middle|nod|nose|plank|seat|sitting|still|straight|tall|temples?|tight|weight';

const ANY_BODY = new RegExp(`\\b(?:${BODY}|${POSTURE})\\b`, 'i');

/** A cue that begins with a part of the body, or with what is to be done to one: `Elbow under …`, `Bend the other knee …`. */
const BODY_FIRST = new RegExp(
  `^(?:(?!(?:from|past|between|under|beside|against)\\b)[a-z]+ )?(?:(?:your|the|a|both|each|one|all|whole|free|soft|light|big|still|lower|upper|other|back|front|bent|straight|working|top|long|ten|trailing) )*(?:${BODY}|breathe?|breaths)\\b(?!['’])`,
  'i',
);

/** What is outside of the body, or comes of a movement: with one of these, a cue that begins with the body still sends the mind elsewhere. */
const OUTSIDE =
  /\b(?:air|anchor|armrest|ball|bands?|bar|beam|bells?|bench|blocks?|board|box|bump|buttons?|cable|ceiling|chair|circle|clock|corners?|cushion|dowel|door|edge|floor|frame|ground|handles?|it|jug|ladder|landing|laces|lanes?|lid|lines?|loops|machine|mat|me|mirror|noise|pads?|paint|path|pedals?|pillar|pin|plates?|pockets?|pole|prints?|quiet|rack|rails?|ring|roll|room|ropes?|rug|saddle|shelf|shirt|shoes?|shoelaces?|skirting|slap|sled|sleeves?|sliders?|socks?|sound|spot|stack|steps?|stick|stool|straps?|string|support|surface|table|tape|target|tiles?|towel|tracks?|tray|walls?|water|waistband|weights?|wheel|window|wires?|zip)\b/i;

/** What is wrong with the focus of a cue, in words; undefined where nothing is. An image may be of anything. */
export function focusProblem({
  text,
  focus,
}: {
  text: string;
  focus: 'inward' | 'outward' | 'image';
}): string | undefined {
  if (focus === 'inward' && !ANY_BODY.test(text)) return 'is marked as inward, but names no part of the body';
  if (focus === 'outward' && BODY_FIRST.test(text) && !OUTSIDE.test(text))
    return 'is marked as outward, but speaks of the body alone';
  return undefined;
}
