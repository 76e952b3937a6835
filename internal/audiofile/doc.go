// Package audiofile reads and writes sound in open formats, and keeps it in a
// folder addressed by content. Readers stream: a file of any length needs the
// memory of one block. Every error says what is wrong with the file, and where.
package audiofile
