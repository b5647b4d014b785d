// Starts the built server and says where it is once the database answers.
import { spawn } from 'node:child_process'
import { createServer } from 'node:net'

const port = Number(process.env.PORT || 4173)
const host = process.env.HOST || '127.0.0.1'
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(`PORT must be a number from 1 to 65535; it is ${process.env.PORT}.`)
  process.exit(2)
}

const free = await new Promise(resolve => {
  const probe = createServer()
  probe.once('error', () => resolve(false))
  probe.listen(port, host, () => probe.close(() => resolve(true)))
})
if (!free) {
  console.error(`Something already listens on ${host}:${port}. Close it, or choose another port: PORT=4174 ./open-tide`)
  process.exit(1)
}

const env = { ...process.env, HOST: host, PORT: String(port), NITRO_HOST: host, NITRO_PORT: String(port) }
const server = spawn(process.execPath, ['.output/server/index.mjs'], { env, stdio: ['ignore', 'ignore', 'inherit'] })
let ended = false
server.on('exit', code => {
  ended = true
  process.exit(code ?? 0)
})
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => server.kill('SIGTERM'))

const address = `http://${host.includes(':') ? `[${host}]` : host}:${port}`
console.log('\x1b[2m· Opening the database …\x1b[0m')
while (!ended) {
  const ready = await fetch(`${address}/api/health`).then(
    r => r.ok,
    () => false,
  )
  if (ready) {
    console.log(`Open Tide is at ${address} (Ctrl C ends it)`)
    break
  }
  await new Promise(resolve => setTimeout(resolve, 100))
}
