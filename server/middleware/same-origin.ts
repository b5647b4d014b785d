/** Other pages open in the same browser must not reach this server: the name it is called by and the origin of a change must be its own. */
export default defineEventHandler(event => {
  const host = getRequestHeader(event, 'host') ?? ''
  const name = host.replace(/:\d+$/, '').replace(/^\[|\]$/g, '')
  const asked = process.env.HOST || '127.0.0.1'
  const own = ['127.0.0.1', 'localhost', '::1', asked]
  if (['127.0.0.1', 'localhost', '::1'].includes(asked) && !own.includes(name)) {
    throw createError({
      statusCode: 403,
      statusMessage: 'Forbidden',
      message: `Open Tide is not served under the name ${name}.`,
    })
  }
  if (event.method === 'GET' || event.method === 'HEAD') return
  const origin = getRequestHeader(event, 'origin')
  if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`) {
    throw createError({
      statusCode: 403,
      statusMessage: 'Forbidden',
      message: 'Only pages of this Open Tide may change its pieces.',
    })
  }
})
