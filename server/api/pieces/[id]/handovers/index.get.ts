import { database } from '../../../../database/current'
import { handoversOf } from '../../../../database/handovers'
import { idOf } from '../../../../request'

/** All that was handed over of a piece, the newest first. */
export default defineEventHandler(async event => handoversOf(await database(), idOf(event)))
