// Package project holds the document that a team works on, the changes that
// can be made to it, and the rules that hold at every revision. It is plain
// data: it knows nothing of sound, files, servers or people's screens.
//
// A Project is changed only by Change values (see change.go), each of which
// checks itself, applies itself, and gives back the changes that undo it.
// To add a change, write it in the file of its family and name it in registry.go.
package project
