package crew

import (
	"crypto/rand"
	"crypto/subtle"
	_ "embed"
	"encoding/base64"
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"golang.org/x/crypto/argon2"
	"golang.org/x/text/unicode/norm"
)

// How long a password is, in letters (NIST SP 800-63B-4, 3.1.1.2: length and a list of common ones, and no other rule).
const (
	ShortestPassword = 10
	LongestPassword  = 200
)

// common are passwords that are tried first by whoever tries, of a length that would do, one a line and in order (common.LICENSE).
//
//go:embed common.txt
var common string

var commonOnes = strings.Split(strings.TrimSpace(common), "\n")

// CheckPassword refuses a password that is too short, too long, a common one, or the name of whom it is for.
func CheckPassword(name, password string) error {
	n := utf8.RuneCountInString(plain(password))
	lower := strings.ToLower(plain(password))
	_, known := slices.BinarySearch(commonOnes, lower)
	switch {
	case !utf8.ValidString(password):
		return errors.New("this password cannot be read as text")
	case n < ShortestPassword:
		return fmt.Errorf("a password has at least %d letters; this one has %d: a few words in a row are easy to keep in mind",
			ShortestPassword, n)
	case n > LongestPassword:
		return fmt.Errorf("a password has at most %d letters; this one has %d", LongestPassword, n)
	case known, one(lower):
		return errors.New("this password is among those that are tried first: take another, such as a few words in a row")
	case strings.Trim(lower, "0123456789!?. ") == strings.ToLower(plain(name)):
		return errors.New("this password is your name: take another, such as a few words in a row")
	}
	return nil
}

// one reports whether a text is the same letter again and again.
func one(text string) bool {
	first, size := utf8.DecodeRuneInString(text)
	return strings.Trim(text[size:], string(first)) == ""
}

// plain writes a text in one way however its letters were put together, so that every keyboard gives the same password.
func plain(text string) string { return norm.NFC.String(text) }

// What hashing costs (argon2id; the OWASP Password Storage Cheat Sheet's first choice): 19 MiB, two passes, one lane. They are kept
// with every hash, so that they can be raised without anybody having to choose anew.
const (
	memory = 19 << 10 // KiB
	passes = 2
	lanes  = 1
)

// working has room for those who are hashed for at once: whoever asks for more of it waits, and memory stays where it is.
var working = make(chan struct{}, 4)

func argon(password string, salt []byte, m, t uint32, p uint8, length uint32) []byte {
	working <- struct{}{}
	defer func() { <-working }()
	return argon2.IDKey([]byte(plain(password)), salt, t, m, p, length)
}

// HashPassword gives what is kept of a password: argon2id with its parameters and a salt of its own, in the PHC string format.
func HashPassword(password string) string {
	salt := make([]byte, 16)
	_, _ = rand.Read(salt) // never fails (crypto/rand)
	sum := argon(password, salt, memory, passes, lanes, 32)
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, memory, passes, lanes, text(salt), text(sum))
}

func text(b []byte) string { return base64.RawStdEncoding.EncodeToString(b) }

// SamePassword reports whether a password is the one of which a hash was kept. It takes as long where the hash is empty, so that
// nobody learns by the time whether there is such an account.
func SamePassword(hash, password string) bool {
	if utf8.RuneCountInString(password) > LongestPassword {
		return false
	}
	var version, m, t int
	var p uint8
	var salt, sum string
	_, err := fmt.Sscanf(strings.ReplaceAll(hash, "$", " "), " argon2id v=%d m=%d,t=%d,p=%d %s %s", &version, &m, &t, &p, &salt, &sum)
	s, err1 := base64.RawStdEncoding.DecodeString(salt)
	want, err2 := base64.RawStdEncoding.DecodeString(sum)
	if err := errors.Join(err, err1, err2); err != nil || version != argon2.Version || m < 1 || m > 1<<21 || t < 1 || t > 1<<10 || p < 1 {
		argon(password, make([]byte, 16), memory, passes, lanes, 32)
		return false
	}
	got := argon(password, s, uint32(m), uint32(t), p, uint32(len(want)))
	return subtle.ConstantTimeCompare(got, want) == 1
}
