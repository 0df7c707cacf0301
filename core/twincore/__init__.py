"""The core of Worthy Twin: computes and judges replacement boards, knows nothing of the web or the disk."""
