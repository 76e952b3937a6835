// Package engine compiles a document to a plan and renders it. It is the one
// engine of Shoal: compiled to WebAssembly it is what people hear, natively it is
// what prints, and both give the same bits.
//
// Compile builds a graph over nodes (channel inputs, stages, strips, sends, keys),
// sorts it, works out how late each node is, puts delays where parallel signals
// meet, and lays the whole out as a flat list of steps on preallocated
// buffers: a plan. Rendering a block runs the steps in order. The render path does not
// allocate, lock or look anything up by name.
//
// An Engine holds the running plan and the transport. Offline renders one tap
// of a document from its first frame, for prints.
package engine
