/** Typing at the caret: the list of symbols, and the quick line. */
import { PlaceBox } from '../PlaceBox'
import { QuickLine } from '../QuickLine'
import { clickAway } from './idle'
import { defineTool, inHand, take } from './moments'

defineTool('place', {
  click: clickAway,
  box: (at) => <PlaceBox at={at} first={inHand('place').text} />,
})

defineTool('quick', { click: clickAway, box: (at) => <QuickLine at={at} /> })

export const startQuick = () => take({ name: 'quick' })
