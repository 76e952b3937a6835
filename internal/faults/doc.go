// Package faults tries what a data folder survives: a server that is killed in the middle of everything, a disk that is full or
// slow, a clock that was wrong, connections that are cut, two servers for one folder. It counts what was acknowledged and what is
// there afterwards. All of it is tests of the program as it is built; FAULTS says how many rounds (make faults: 1,000; else a few).
package faults
