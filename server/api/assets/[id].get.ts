import { sentPicture } from '../../pictures'
import { idOf } from '../../request'

/** A picture by its hash. */
export default defineEventHandler(event => sentPicture(event, idOf(event)))
