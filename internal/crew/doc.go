// Package crew holds the rules of who may do what: the roles in a project, what an operation needs of whoever asks for it, what
// makes a password, and what a link that is handed over opens. It knows no database and no network.
package crew
