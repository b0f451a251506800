import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  experimental: { optimizePackageImports: ['@chakra-ui/react'] },
};

export default config;
