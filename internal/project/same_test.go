package project

import (
	"reflect"
	"testing"

	"github.com/stretchr/testify/require"
)

// full is a row that has something in every field, and of every kind of thing that a row can hold.
func full() *Channel {
	c := &Channel{}
	fill(reflect.ValueOf(c).Elem(), 3)
	return c
}

// fill gives every field a value; what holds itself, such as a path its chain, ends at a depth.
func fill(v reflect.Value, depth int) {
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			fill(v.Field(i), depth)
		}
	case reflect.Pointer:
		if depth == 0 {
			return
		}
		v.Set(reflect.New(v.Type().Elem()))
		fill(v.Elem(), depth-1)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 1, 1))
		fill(v.Index(0), depth)
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
		v.SetMapIndex(reflect.ValueOf("gain"), reflect.ValueOf(1.5))
	default:
		other(v)
	}
}

// other gives a plain value another one.
func other(v reflect.Value) {
	switch v.Kind() {
	case reflect.String:
		v.SetString(v.String() + "x")
	case reflect.Bool:
		v.SetBool(!v.Bool())
	case reflect.Int, reflect.Int64:
		v.SetInt(v.Int() + 1)
	case reflect.Float64:
		v.SetFloat(v.Float() + 1)
	}
}

// alter makes one alteration after the other to what v holds, lets each be seen, and takes it back.
func alter(v reflect.Value, path string, seen func(path string)) {
	with := func(x reflect.Value, what string) {
		was := reflect.New(v.Type()).Elem()
		was.Set(v)
		v.Set(x)
		seen(path + what)
		v.Set(was)
	}
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			alter(v.Field(i), path+"."+v.Type().Field(i).Name, seen)
		}
	case reflect.Pointer:
		if v.IsNil() {
			return
		}
		with(reflect.Zero(v.Type()), " is none")
		alter(v.Elem(), path, seen)
	case reflect.Slice:
		if v.Len() == 0 {
			return
		}
		with(reflect.Zero(v.Type()), " is none")
		with(reflect.MakeSlice(v.Type(), 0, 0), " is empty")
		with(reflect.Append(v, v.Index(0)), " is longer")
		alter(v.Index(0), path+"[0]", seen)
	case reflect.Map:
		with(reflect.Zero(v.Type()), " is none")
		with(reflect.MakeMap(v.Type()), " is empty")
		more := reflect.MakeMap(v.Type())
		more.SetMapIndex(reflect.ValueOf("gain"), reflect.ValueOf(2.5))
		with(more, " says something else")
	default:
		x := reflect.New(v.Type()).Elem()
		x.Set(v)
		other(x)
		with(x, " says something else")
	}
}

// Whatever is altered in a row, be it ever so small, is seen; nothing else is.
func TestNothingInARowIsOverlookedWhenItIsCompared(t *testing.T) {
	a, b := full(), full()
	require.True(t, a.same(b))
	n := 0
	alter(reflect.ValueOf(b).Elem(), "row", func(path string) {
		n++
		require.Equal(t, reflect.DeepEqual(a, b), a.same(b), path)
		require.Equal(t, reflect.DeepEqual(a, b), b.same(a), path)
	})
	require.Greater(t, n, 150)
	require.True(t, a.same(b), "what was altered has been taken back")
}
