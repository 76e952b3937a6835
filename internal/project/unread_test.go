package project

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestWhatCannotBeReadIsSaidInWords(t *testing.T) {
	for in, says := range map[string]string{
		`{"type":"clip.add","do":{"channel":7}}`:          "channel must be a text, not a number",
		`{"type":"node.add","do":{"index":"x"}}`:          "index must be a whole number, not a text",
		`{"type":"node.add","do":{"index":1.5}}`:          "index must be a whole number, not 1.5",
		`{"type":"node.add","do":[]}`:                     "this must be an object, not a list",
		`{"type":"node.add","do":{"loudness":1}}`:         `unknown field "loudness"`,
		`{"type":"path.set","do":{"id":"p","mute":"no"}}`: "mute must be true or false, not a text",
	} {
		var w Wire
		require.NoError(t, json.Unmarshal([]byte(in), &w))
		_, err := Decode([]Wire{w})
		require.ErrorContains(t, err, says)
		require.NotContains(t, err.Error(), "Go ")
		require.NotContains(t, err.Error(), "project.")
	}
	for in, says := range map[string]string{"": "it is empty", "{": "it ends too early", "{]": "it is no JSON", "[": "too early"} {
		var v any
		err := strict([]byte(in), &v)
		require.ErrorContains(t, err, says, in)
	}
}
