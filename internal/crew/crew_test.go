package crew

import (
	"errors"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

func TestARoleMayWhatThoseBelowItMay(t *testing.T) {
	order := []Role{None, Listener, Engineer, Owner}
	for i, a := range order {
		for k, b := range order {
			require.Equal(t, i >= k, a.Covers(b), "%q %q", a, b)
		}
	}
	require.Error(t, None.Check())
	require.Error(t, Role("king").Check())
	nobody := func() []string { return nil }
	for _, c := range []struct {
		as      Standing
		may, no []Need
	}{
		{Standing{}, nil, []Need{Hear, Export, Change, Own}},
		{Standing{Role: Listener}, []Need{Hear}, []Need{Export, Change, Own}},
		{Standing{Role: Listener, Exports: true}, []Need{Hear, Export}, []Need{Change, Own}},
		{Standing{Role: Engineer}, []Need{Hear, Export, Change}, []Need{Own}},
		{Standing{Role: Owner}, []Need{Hear, Export, Change, Own}, []Need{SignedIn, Keeper}},
	} {
		for _, n := range c.may {
			require.NoError(t, c.as.Allows(n, nobody), "%v %d", c.as, n)
		}
		for _, n := range c.no {
			require.Error(t, c.as.Allows(n, nobody), "%v %d", c.as, n)
		}
	}
	require.ErrorIs(t, Standing{}.Allows(Own, nobody), ErrOutside)
	var no *Refused
	require.True(t, errors.As(Standing{Role: Listener}.Allows(Change, func() []string { return []string{"Ada", "Bo"} }), &no))
	require.Contains(t, no.Error(), "Ada or Bo can make you one")
}

func TestAPasswordIsKeptAsAHashOfItsOwn(t *testing.T) {
	a, b := HashPassword("seven boats at noon"), HashPassword("seven boats at noon")
	require.NotEqual(t, a, b, "each has a salt of its own")
	require.True(t, strings.HasPrefix(a, "$argon2id$v=19$m=19456,t=2,p=1$"))
	require.True(t, SamePassword(a, "seven boats at noon"))
	require.False(t, SamePassword(a, "seven boats at one"))
	// however its letters were put together, and whatever an older program took for parameters
	require.True(t, SamePassword(HashPassword("caf\u00e9 by the sea"), "cafe\u0301 by the sea"))
	cheap := strings.Replace(a, "m=19456", "m=64", 1)
	require.False(t, SamePassword(cheap, "seven boats at noon"))
	for _, broken := range []string{
		"", "$", "$argon2id$v=19$m=0,t=0,p=0$$", "$argon2id$v=19$m=99999999,t=1,p=1$AAAA$AAAA", "plain",
		strings.Replace(a, "$v=19", "$v=16", 1),
	} {
		require.False(t, SamePassword(broken, "seven boats at noon"), broken)
	}
	require.False(t, SamePassword(a, strings.Repeat("x", LongestPassword+1)))
}

func TestPasswordsThatAreTriedFirstAreRefused(t *testing.T) {
	require.True(t, slices.IsSorted(commonOnes), "they are searched by halves")
	for _, password := range append(
		slices.Clone(commonOnes[:50]), "short", "123456789", "PASSWORD123", "zzzzzzzzzzzz", "Ada Lovelace 1!", "ada lovelace",
		strings.Repeat("long ", 50), "\xff\xfe123456789",
	) {
		require.Error(t, CheckPassword("Ada Lovelace", password), password)
	}
	for _, password := range []string{"seven boats at noon", "ÄÖÜäöüßéèê", "🙂🙃🙂🙃🙂🙃🙂🙃🙂🙃", strings.Repeat("ab", 100)} {
		require.NoError(t, CheckPassword("Ada Lovelace", password), password)
	}
}

func TestALinkHoldsAsOftenAndAsLongAsItSays(t *testing.T) {
	now := time.Date(2026, 11, 30, 12, 0, 0, 0, time.UTC)
	ok := Link{Kind: Join, Role: Engineer, Uses: 2, Used: 1, Until: now.Add(time.Hour)}
	require.NoError(t, ok.Holds(now))
	require.NoError(t, ok.Check(now))
	require.ErrorContains(t, ok.Holds(now.Add(time.Hour)), "30 November 2026, 13:00 UTC")
	used, ended, many := ok, ok, ok
	used.Used, ended.Ended = 2, true
	require.ErrorContains(t, used.Holds(now), "used already, and it opens 2 times")
	require.ErrorContains(t, ended.Holds(now), "taken back")
	many.Uses, many.Used = 0, 500
	require.NoError(t, many.Holds(now))
	many.Role = Owner
	require.ErrorContains(t, many.Check(now), "certain number of times")
	late := ok
	late.Until = now.Add(2 * LongestHolds)
	require.ErrorContains(t, late.Check(now), "90 days")
}
