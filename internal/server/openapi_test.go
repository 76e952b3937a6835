package server

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

type schema struct {
	Ref        string            `json:"$ref"`
	OneOf      []schema          `json:"oneOf"`
	AnyOf      []schema          `json:"anyOf"`
	Properties map[string]schema `json:"properties"`
	Required   []string          `json:"required"`
	Const      string            `json:"const"`
	Additional any               `json:"additionalProperties"`
}

func described(t *testing.T) map[string]schema {
	b, err := OpenAPI()
	require.NoError(t, err)
	var d struct {
		Components struct {
			Schemas map[string]schema `json:"schemas"`
		} `json:"components"`
	}
	require.NoError(t, json.Unmarshal(b, &d))
	return d.Components.Schemas
}

func TestEveryChangeIsDescribedWithItsFieldsAndNoOthers(t *testing.T) {
	all := described(t)
	found := map[string]schema{}
	for _, s := range all["ProjectWire"].OneOf {
		assert.ElementsMatch(t, []string{"type", "do"}, s.Required)
		do := s.Properties["do"]
		require.NotEmpty(t, do.Ref)
		found[s.Properties["type"].Const] = all[do.Ref[len(components):]]
	}
	for name, c := range project.Changes() {
		s, ok := found[name]
		require.True(t, ok, "%s is not described", name)
		assert.Equal(t, false, s.Additional, "%s takes any field", name)
		// what an empty one writes is what must be there, and it is described
		b, err := json.Marshal(c)
		require.NoError(t, err)
		var fields map[string]any
		require.NoError(t, json.Unmarshal(b, &fields))
		for f := range fields {
			assert.Contains(t, s.Properties, f, name)
			assert.Contains(t, s.Required, f, name)
		}
		assert.Len(t, s.Required, len(fields), name)
	}
	assert.Len(t, found, len(project.Changes()))
}

func TestAPartOfAMoverHasItsFieldsAndRequiresNone(t *testing.T) {
	all := described(t)
	part := all["ProjectMoverPart"]
	assert.Empty(t, part.Required)
	assert.Len(t, part.Properties, len(all["ProjectMover"].Properties))
	follow := part.Properties["follow"].AnyOf
	require.Len(t, follow, 2, "what follows a signal can be taken away: it is null then")
	assert.Contains(t, follow[0].Properties, "attack")
	assert.Empty(t, follow[0].Required)
	assert.Equal(t, components+"ProjectHandlePart", all["ProjectSetHandle"].Properties["what"].Ref)
}
