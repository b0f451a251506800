import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  experimental: {
    optimizePackageImports: ['@chakra-ui/react'],
    // A microscope's picture comes whole.
    serverActions: { bodySizeLimit: '32mb' },
  },
};

export default config;
