/** Faces by name: ours, and those that have the characters ours lack. */
export const FACES = {
  text: '@expo-google-fonts/hanken-grotesk/400Regular/HankenGrotesk_400Regular.ttf',
  bold: '@expo-google-fonts/hanken-grotesk/600SemiBold/HankenGrotesk_600SemiBold.ttf',
  title: '@expo-google-fonts/newsreader/500Medium/Newsreader_500Medium.ttf',
  other: '@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf',
  arabic: '@expo-google-fonts/noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf',
  hebrew: '@expo-google-fonts/noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf',
  devanagari: '@expo-google-fonts/noto-sans-devanagari/400Regular/NotoSansDevanagari_400Regular.ttf',
  korean: '@expo-google-fonts/noto-sans-kr/400Regular/NotoSansKR_400Regular.ttf',
  chinese: '@expo-google-fonts/noto-sans-sc/400Regular/NotoSansSC_400Regular.ttf',
  emoji: '@expo-google-fonts/noto-emoji/400Regular/NotoEmoji_400Regular.ttf',
} as const
type Face = keyof typeof FACES
export type OwnFace = 'text' | 'bold' | 'title'
export const isOwn = (face: string): face is OwnFace => face === 'text' || face === 'bold' || face === 'title'

/** The Chinese face has Japanese too. */
const SCRIPTS: readonly [Face, RegExp][] = [
  ['arabic', /\p{Script=Arabic}/u],
  ['hebrew', /\p{Script=Hebrew}/u],
  ['devanagari', /\p{Script=Devanagari}/u],
  ['korean', /\p{Script=Hangul}/u],
  ['chinese', /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\u3001-\u3011\u30fb\u30fc\uff01-\uff5e]/u],
  ['emoji', /\p{Extended_Pictographic}/u],
  ['other', /[\p{Script=Cyrillic}\p{Script=Greek}]/u],
]
const OWN = /[\u0000-\u024f\u2010-\u203a\u20ac\u2212\u25a1]/
/** What stands for a sign that no face has. */
const UNSEEN = '\u25a1'

const faceOf = (sign: string, own: OwnFace): Face | undefined =>
  OWN.test(sign) ? own : SCRIPTS.find(([, pattern]) => pattern.test(sign))?.[0]

/** Cuts a text where its face has to change; blanks stay with the part before them. */
export function runs(text: string, own: OwnFace): { face: Face; text: string }[] {
  const parts: { face: Face; text: string }[] = []
  for (const sign of clean(text)) {
    const found = /\s/.test(sign) ? (parts.at(-1)?.face ?? own) : faceOf(sign, own)
    const face = found ?? own
    const shown = found === undefined ? UNSEEN : sign
    const last = parts.at(-1)
    if (last?.face === face) last.text += shown
    else parts.push({ face, text: shown })
  }
  return parts.length === 0 ? [{ face: own, text: '' }] : parts
}

/** The signs of a text that a PDF cannot show, each once. */
export function unseenSigns(text: string): string[] {
  return [...new Set(clean(text))].filter((sign) => !/\s/.test(sign) && faceOf(sign, 'text') === undefined)
}

/** Control and direction characters have no shape of their own; of blanks the faces have the plain ones alone. */
function clean(text: string): string {
  return text
    .replace(/[\u0000-\u0009\u000b-\u001f\u200b-\u200f\u202a-\u202e\u2066-\u2069\ufe0f]/g, '')
    .replace(/[\u2000-\u200a\u202f\u205f\u3000]/g, '\u00a0')
}
