import compression from 'compression'
import { fromNodeMiddleware, type NodeMiddleware } from 'h3'

/** The page of an error is asked for by the server itself, which passes it on as it is. */
const isForOurselves = (url: string) => url.startsWith('/__nuxt_error')

/**
 * Pages and answers leave compressed, quickly rather than tightly. What flows on for hours (live changes) is not held
 * back to be compressed. The site's cookie goes with no other site's request, so that nobody outside can have our
 * answers compressed together with words of their own and learn from their length.
 */
const compressed = compression({
  level: 4,
  filter: (req, res) =>
    !String(res.getHeader('content-type')).startsWith('text/event-stream') &&
    !isForOurselves(req.url) &&
    compression.filter(req, res),
})

// The package speaks of the framework it was written for; what it asks for are Node's request and response.
export default fromNodeMiddleware(compressed as unknown as NodeMiddleware)
