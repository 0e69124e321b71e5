/** What the Brief bench's endpoints answer. */
import type { Schemas } from '../../api/shapes'

export type SaidLine = Schemas['SaidLine']
export type SaidTexts = Schemas['SaidTexts']
export type SheetRecord = Schemas['SheetRecord']
export type Sheets = Schemas['Sheets']
export type Cell = Schemas['TitleCellRecord']
export type Blocks = Schemas['TitleBlocks']
export type JournalLine = Schemas['JournalLine']
export type JournalDetail = Schemas['JournalDetail']
export type SheetThen = Schemas['SceneValue']
export type WireTypeRecord = Schemas['WireTypeRecord']
export type NumberRuleRecord = Schemas['NumberRuleRecord']
/** A piece of a number with its texts: digits and first number of a running one, the words of a fixed text. */
export type NumberPiece = NumberRuleRecord['pieces'][number]
export type TagRuleRecord = Schemas['TagRuleRecord']
export type WiringHabits = Schemas['WiringHabits']
