import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // Starts threads from files of its own.
  serverExternalPackages: ['piscina'],
  experimental: {
    optimizePackageImports: ['@chakra-ui/react'],
    // A microscope's picture comes whole.
    serverActions: { bodySizeLimit: '32mb' },
    // What the proxy sees is copied, and cut at 10 MB without a word where nothing else is said.
    proxyClientMaxBodySize: '32mb',
  },
};

export default config;
