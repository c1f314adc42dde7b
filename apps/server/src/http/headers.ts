import type Koa from 'koa';
import helmet from 'koa-helmet';

/** Answers of the interface are of the moment: nothing keeps them, unless a route says so. */
export function noStore(): Koa.Middleware {
  return async (ctx, next) => {
    if (ctx.path.toLowerCase().startsWith('/api/')) ctx.set('cache-control', 'no-store');
    await next();
  };
}

/** What browsers are told to bar. */
export function securityHeaders(): Koa.Middleware {
  return helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // The engine is WebAssembly; scripts from elsewhere and made of text stay barred.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        // Style tags are made at run time by the interface library.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'"],
        connectSrc: ["'self'"],
        upgradeInsecureRequests: null,
      },
    },
    crossOriginEmbedderPolicy: true,
    // Served over plain HTTP on this machine; a proxy that adds TLS adds this too.
    strictTransportSecurity: false,
  });
}
