// The server that "npm run dev" starts beside the pages.
const port = Number(process.env.PORT ?? 4310) + 1;

export default { '/api': { target: `http://127.0.0.1:${port}`, changeOrigin: true, headers: { origin: `http://127.0.0.1:${port}` } } };
