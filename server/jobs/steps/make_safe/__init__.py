"""Make safe."""
