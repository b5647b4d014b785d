// Starts the built server, in this very process, and says where it is once the database answers.
import { createServer } from 'node:net'
import { resolve } from 'node:path'

const port = Number(process.env.PORT || 4173)
const host = process.env.HOST || '127.0.0.1'
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(`PORT must be a number from 1 to 65535; it is ${process.env.PORT}.`)
  process.exit(2)
}

const trouble = await new Promise(done => {
  const probe = createServer()
  probe.once('error', e => done(e.code))
  probe.listen(port, host, () => probe.close(() => done(null)))
})
if (trouble === 'EADDRINUSE') {
  console.error(`Something already listens on ${host}:${port}. Close it, or choose another port: PORT=4174 ./open-tide`)
  process.exit(1)
}
if (trouble) {
  console.error(`Open Tide cannot listen on ${host}:${port} (${trouble}). Choose another HOST or PORT.`)
  process.exit(1)
}

Object.assign(process.env, { HOST: host, PORT: String(port), NITRO_HOST: host, NITRO_PORT: String(port) })
const server = resolve('.output/server/index.mjs')
process.argv[1] = server
console.log('\x1b[2m· Opening the database …\x1b[0m')
// What the server itself says of its start comes too early: it listens before it can answer.
const say = console.log
console.log = (...words) => (/^Listening on/.test(String(words[0])) ? undefined : say(...words))
await import(server)

const shown = host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host
const address = `http://${shown.includes(':') ? `[${shown}]` : shown}:${port}`
for (;;) {
  const ready = await fetch(`${address}/api/health`).then(
    r => r.ok,
    () => false,
  )
  if (ready) break
  await new Promise(done => setTimeout(done, 100))
}
say(`Open Tide is at ${address} (Ctrl C ends it)`)
