const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// npm run dev: the page comes from here, what it asks for from the server.
if (process.env.API_URL) {
  const { createProxyMiddleware } = require('http-proxy-middleware');
  const toServer = createProxyMiddleware({ target: process.env.API_URL, pathFilter: '/api' });
  config.server = {
    ...config.server,
    enhanceMiddleware: (metro) => (request, response, next) =>
      toServer(request, response, () => metro(request, response, next)),
  };
}

module.exports = config;
